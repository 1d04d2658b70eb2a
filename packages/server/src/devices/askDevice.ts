/** Devices that answer one question at a time over TCP: the probe thermometer and the label printer. Their lines are in docs/devices.md. */
import { connect } from 'node:net';
import { Problem } from '../http/problem.ts';

export interface DeviceAddress {
  readonly host: string;
  readonly port: number;
}

/** How long a device may say nothing, and how long its whole answer may take: one that drips a byte a second is no device. */
const PATIENCE_MS = 3_000;
const LONGEST_MS = 10_000;
/** A line of a device is short; what a printer shows is a PDF. */
const LONGEST_LINE = 4_096;
const LARGEST = 50_000_000;

/** Sends one request and reads until the device hangs up, or until there is a whole line when `oneLine`. */
function ask(address: DeviceAddress, parts: readonly (string | Uint8Array)[], oneLine: boolean): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const socket = connect(address.port, address.host);
    const read: Buffer[] = [];
    let size = 0;
    const late = setTimeout(() => socket.destroy(new Error('no whole answer')), LONGEST_MS);
    socket.setTimeout(PATIENCE_MS, () => socket.destroy(new Error('no answer')));
    socket.once('error', reject);
    socket.on('data', (chunk) => {
      size += chunk.length;
      if (size > (oneLine ? LONGEST_LINE : LARGEST)) {
        socket.destroy(new Error('more than an answer'));
        return;
      }
      read.push(chunk as Buffer);
      if (oneLine && (chunk as Buffer).includes(10)) socket.end();
    });
    socket.once('close', () => {
      clearTimeout(late);
      resolve(Buffer.concat(read));
    });
    for (const part of parts) socket.write(part);
  });
}

export interface ProbeReading {
  readonly state: 'steady' | 'moving' | 'away';
  readonly centiC: number | null;
  readonly errorCentiC: number;
}

/** What the probe shows now; `away` when there is none or it does not answer. */
export async function readProbe(address: DeviceAddress | undefined): Promise<ProbeReading> {
  const away: ProbeReading = { state: 'away', centiC: null, errorCentiC: 0 };
  if (address === undefined) return away;
  const line = await ask(address, ['read\n'], true).then(
    (b) => b.toString('utf8'),
    () => '',
  );
  const match = /^probe state=(steady|moving) c=(-?\d{1,5}) error=(\d{1,3})/.exec(line);
  if (match === null) return away;
  return {
    state: match[1] === 'steady' ? 'steady' : 'moving',
    centiC: Number(match[2]),
    errorCentiC: Number(match[3]),
  };
}

/** Only in the demo and in tests. Errors: `probe_away`. */
export async function stickProbe(address: DeviceAddress | undefined, centiC: number): Promise<void> {
  const said = address === undefined ? '' : await ask(address, [`stick ${centiC}\n`], true).then(String, () => '');
  if (!said.startsWith('done')) throw new Problem('probe_away');
}

/** Prints a PDF of so many labels. Errors: `printer_away`. Gives the printer's name for the job. */
export async function print(
  address: DeviceAddress | undefined,
  name: string,
  labels: number,
  pdf: Uint8Array,
): Promise<string> {
  const header = `print name=${encodeURIComponent(name).slice(0, 390)} labels=${labels} bytes=${pdf.length}\n`;
  const said = address === undefined ? '' : await ask(address, [header, pdf], true).then(String, () => '');
  const job = /^done (\S+)/.exec(said)?.[1];
  if (job === undefined) throw new Problem('printer_away');
  return job;
}

/** Whether something there answers as a label printer does. */
export async function answersAsPrinter(address: DeviceAddress): Promise<boolean> {
  const said = await ask(address, ['jobs\n'], false).then(String, () => '');
  return said.split('\n').includes('end');
}

export interface PrintedJob {
  readonly job: string;
  readonly name: string;
  readonly labels: number;
  readonly bytes: number;
  readonly at: string;
}

export async function printedJobs(address: DeviceAddress | undefined): Promise<PrintedJob[]> {
  if (address === undefined) return [];
  const said = await ask(address, ['jobs\n'], false).then(String, () => '');
  return said.split('\n').flatMap((line) => {
    const match = /^job (\S+) name=(\S*) labels=(\d+) bytes=(\d+) at=(\S+)$/.exec(line);
    if (match === null) return [];
    const [, job = '', name = '', labels, bytes, at = ''] = match;
    return [{ job, name: decodeURIComponent(name), labels: Number(labels), bytes: Number(bytes), at }];
  });
}

/** What came out for a job. Errors: `not_found`, `printer_away`. */
export async function printedDocument(address: DeviceAddress | undefined, job: string): Promise<Uint8Array> {
  if (address === undefined) throw new Problem('printer_away');
  const said = await ask(address, [`show ${job}\n`], false).catch(() => Buffer.alloc(0));
  const at = said.indexOf(10);
  const bytes = /^bytes=(\d+)$/.exec(said.subarray(0, at).toString('utf8'))?.[1];
  if (bytes === undefined) throw new Problem(said.length === 0 ? 'printer_away' : 'not_found');
  return new Uint8Array(said.subarray(at + 1));
}
