import { createServer, type Server } from 'node:net';

export interface PrintedJob {
  readonly job: string;
  readonly name: string;
  readonly labels: number;
  readonly at: string;
  readonly document: Uint8Array;
}

export interface SimulatedPrinterSettings {
  readonly host: string;
  /** 0 takes a free one. */
  readonly port: number;
  readonly clock?: () => Date;
}

const KEPT = 40;
const MOST_BYTES = 8_000_000;
const HEADER = /^print name=(\S{1,400}) labels=(\d{1,4}) bytes=(\d{1,8})$/;

/**
 * A label printer that exists only as a TCP server on loopback: one request a connection, a line and, for a print, the PDF after it.
 *
 *   host -> printer   print name=<percent-encoded> labels=<n> bytes=<n>, then that many bytes of PDF
 *                     jobs                 what came out lately, newest first
 *                     show <job>           the PDF of one
 *   printer -> host   done <job> | refused <why>
 *                     job <job> name=<percent-encoded> labels=<n> bytes=<n> at=<RFC 3339>, one a line, then end
 *                     bytes=<n>, then the PDF
 *
 * It keeps the last forty, so that what came out can be looked at.
 */
export function startSimulatedPrinter(
  settings: SimulatedPrinterSettings,
): Promise<{ readonly port: number; readonly jobs: () => readonly PrintedJob[]; stop(): Promise<void> }> {
  const clock = settings.clock ?? ((): Date => new Date());
  const jobs: PrintedJob[] = [];
  let count = 0;

  const print = (name: string, labels: number, document: Uint8Array): string => {
    if (Buffer.from(document.subarray(0, 5)).toString('latin1') !== '%PDF-') return 'refused not-a-pdf\n';
    count += 1;
    jobs.unshift({ job: String(count), name, labels, at: clock().toISOString(), document });
    jobs.length = Math.min(jobs.length, KEPT);
    return `done ${count}\n`;
  };

  const server: Server = createServer((socket) => {
    let read: Buffer = Buffer.alloc(0);
    const answer = (text: string, document?: Uint8Array): void => {
      socket.write(text);
      if (document !== undefined) socket.write(document);
      socket.end();
    };
    socket.setTimeout(10_000, () => socket.destroy());
    socket.on('error', () => socket.destroy());
    socket.on('data', (chunk) => {
      read = Buffer.concat([read, chunk as Buffer]);
      const at = read.indexOf(10);
      if (at < 0) {
        if (read.length > 1_000) answer('refused no-line\n');
        return;
      }
      const line = read.subarray(0, at).toString('utf8').trim();
      if (line === 'jobs') {
        const told = jobs.map(
          (j) =>
            `job ${j.job} name=${encodeURIComponent(j.name)} labels=${j.labels} bytes=${j.document.length} at=${j.at}\n`,
        );
        return answer(`${told.join('')}end\n`);
      }
      const show = /^show (\d+)$/.exec(line);
      if (show !== null) {
        const job = jobs.find((j) => j.job === show[1]);
        return job === undefined
          ? answer('refused no-such-job\n')
          : answer(`bytes=${job.document.length}\n`, job.document);
      }
      const header = HEADER.exec(line);
      if (header === null) return answer('refused unknown\n');
      const bytes = Number(header[3]);
      if (bytes > MOST_BYTES) return answer('refused too-long\n');
      const document = read.subarray(at + 1);
      if (document.length < bytes) return;
      answer(
        print(decodeURIComponent(header[1] ?? ''), Number(header[2]), new Uint8Array(document.subarray(0, bytes))),
      );
    });
  });

  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(settings.port, settings.host, () => {
      const address = server.address();
      resolve({
        port: address !== null && typeof address === 'object' ? address.port : settings.port,
        jobs: () => jobs,
        stop: () => new Promise((done) => server.close(() => done())),
      });
    });
  });
}
