import { createServer, type Socket } from 'node:net';

export interface Lines {
  readonly host: string;
  /** 0 takes a free one. */
  readonly port: number;
  /** Said to whoever comes, before anything else. */
  readonly hello: string;
  /** Answers a line. */
  readonly obey: (line: string) => string;
  /** Somebody came: what stands is said anew. */
  readonly came: () => void;
}

/** A device as a TCP server that speaks lines: to all who are connected at once. What they send is read line by line. */
export function serveLines({ host, port, hello, obey, came }: Lines): Promise<{
  readonly port: number;
  readonly say: (line: string) => void;
  stop(): Promise<void>;
}> {
  const sockets = new Set<Socket>();
  const server = createServer((socket) => {
    sockets.add(socket);
    socket.setEncoding('utf8').setNoDelay(true);
    let rest = '';
    socket.on('data', (chunk: string) => {
      const lines = (rest + chunk).split('\n');
      rest = (lines.pop() ?? '').slice(-256);
      for (const line of lines) if (line.trim() !== '') socket.write(`${obey(line)}\n`);
    });
    socket.on('error', () => socket.destroy());
    socket.on('close', () => sockets.delete(socket));
    socket.write(`${hello}\n`);
    came();
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => {
      const address = server.address();
      resolve({
        port: address !== null && typeof address === 'object' ? address.port : port,
        say: (line) => {
          for (const socket of sockets) socket.write(`${line}\n`);
        },
        stop: () =>
          new Promise((done) => {
            for (const socket of sockets) socket.destroy();
            server.close(() => done());
          }),
      });
    });
  });
}
