/**
 * The bench scale's line protocol, plain text over TCP, one line a message, LF at the end. See docs/devices.md.
 *
 *   scale -> host   reading n=<count> state=<steady|moving|over|under> gross=<mg> tare=<mg> net=<mg> settled=<count> e=<mg>
 *                   plate name=<name> class=<II|III|IIII> e=<mg> max=<mg>
 *                   done <command>      refused <command> <why>
 *   host -> scale   plate | read | tare | untare | zero
 *   simulator only  load <mg>           puts exactly that on the pan
 */

export const scaleStates = ['steady', 'moving', 'over', 'under'] as const;
export type ScaleState = (typeof scaleStates)[number];

export interface ReadingLine {
  readonly count: number;
  readonly state: ScaleState;
  readonly grossMg: number;
  readonly tareMg: number;
  readonly netMg: number;
  /** How many times the pan has come to rest since the scale was switched on. */
  readonly settled: number;
  readonly intervalMg: number;
}

export const formatReading = (r: ReadingLine): string =>
  `reading n=${r.count} state=${r.state} gross=${r.grossMg} tare=${r.tareMg} net=${r.netMg} settled=${r.settled} e=${r.intervalMg}`;

/** Why a scale did not do what it was told, by the word its line says, as a cook reads it. */
export const scaleRefusals: ReadonlyMap<string, string> = new Map([
  ['moving', 'The pan is still moving. Let it rest, then try again.'],
  ['nothing', 'There is nothing on the pan to tare.'],
  ['too-far', 'Too much on the pan to set zero. Clear it first.'],
]);

const isState = (text: string | undefined): text is ScaleState => scaleStates.some((state) => state === text);

export interface Plate {
  readonly accuracyClass: 'II' | 'III' | 'IIII';
  readonly intervalMg: number;
  readonly maxMg: number;
}

/** Reads a `plate` line; anything else gives undefined. */
export function parsePlate(line: string): Plate | undefined {
  const [, accuracyClass, e, max] =
    /^plate (?:.* )?class=(II|III|IIII) e=(\d{1,9}) max=(\d{1,12})\s*$/.exec(line) ?? [];
  const [intervalMg, maxMg] = [Number(e), Number(max)];
  if (accuracyClass === undefined || !(intervalMg > 0 && maxMg > intervalMg)) return undefined;
  return { accuracyClass: accuracyClass as Plate['accuracyClass'], intervalMg, maxMg };
}

/** Reads a `reading` line; anything else, or a line cut short, gives undefined: a host ignores what it cannot read. */
export function parseReading(line: string): ReadingLine | undefined {
  if (!line.startsWith('reading ')) return undefined;
  const fields = new Map(
    line
      .slice('reading '.length)
      .trim()
      .split(/\s+/)
      .map((pair): [string, string] => {
        const at = pair.indexOf('=');
        return [pair.slice(0, at), pair.slice(at + 1)];
      }),
  );
  const whole = (name: string): number => {
    const text = fields.get(name);
    return text !== undefined && /^-?\d+$/.test(text) ? Number(text) : Number.NaN;
  };
  const state = fields.get('state');
  const reading = {
    count: whole('n'),
    grossMg: whole('gross'),
    tareMg: whole('tare'),
    netMg: whole('net'),
    settled: whole('settled'),
    intervalMg: whole('e'),
  };
  if (!isState(state) || Object.values(reading).some(Number.isNaN)) return undefined;
  return { ...reading, state };
}
