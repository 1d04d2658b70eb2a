import { createServer, type Server } from 'node:net';

export interface SimulatedProbeSettings {
  readonly host: string;
  /** 0 takes a free one. */
  readonly port: number;
  /** How long until the tip has gone nine tenths of the way, milliseconds. */
  readonly lagMs: number;
  readonly normal: () => number;
  readonly clock?: () => number;
}

/** The declared error of the simulated probe, hundredths of a degree: what a plate-marked kitchen probe of half a degree says. */
export const PROBE_ERROR_CENTI_C = 50;
const AIR_CENTI_C = 1_950;
/** Slower than this a second, the tip has settled; hundredths of a degree. */
const STEADY = 12;

/**
 * A probe thermometer that exists only as a TCP server on loopback. It follows what it is stuck into, as the tip warms or cools.
 *
 *   host -> probe   read                    probe -> host   probe state=<steady|moving> c=<hundredths> error=<hundredths>
 *   simulator only  stick <hundredths>                      done stick
 */
export function startSimulatedProbe(
  settings: SimulatedProbeSettings,
): Promise<{ readonly port: number; stop(): Promise<void> }> {
  const clock = settings.clock ?? ((): number => performance.now());
  let from = AIR_CENTI_C;
  let to = AIR_CENTI_C;
  let since = clock();
  const tip = (): { centiC: number; perSecond: number } => {
    const rate = Math.LN10 / settings.lagMs;
    const gone = Math.exp(-rate * (clock() - since));
    return { centiC: to + (from - to) * gone, perSecond: Math.abs((from - to) * gone * rate * 1_000) };
  };
  const obey = (line: string): string => {
    const stick = /^stick (-?\d{1,5})$/.exec(line);
    if (stick !== null) {
      from = tip().centiC;
      to = Number(stick[1]);
      since = clock();
      return 'done stick';
    }
    if (line !== 'read') return 'refused unknown';
    const { centiC, perSecond } = tip();
    const shown = Math.round((centiC + settings.normal()) / 10) * 10;
    return `probe state=${perSecond < STEADY ? 'steady' : 'moving'} c=${shown} error=${PROBE_ERROR_CENTI_C}`;
  };
  const server: Server = createServer((socket) => {
    socket.setEncoding('utf8').setNoDelay(true);
    socket.on('error', () => socket.destroy());
    let rest = '';
    socket.on('data', (chunk: string) => {
      const lines = (rest + chunk).split('\n');
      rest = (lines.pop() ?? '').slice(-64);
      for (const line of lines) if (line.trim() !== '') socket.write(`${obey(line.trim())}\n`);
    });
  });
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(settings.port, settings.host, () => {
      const address = server.address();
      resolve({
        port: address !== null && typeof address === 'object' ? address.port : settings.port,
        stop: () => new Promise((done) => server.close(() => done())),
      });
    });
  });
}
