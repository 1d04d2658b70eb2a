/** The longest line that is waited for. */
const LONGEST = 256;

/** Text that comes in pieces, line by line; a line without an end is kept to its last characters. */
export class Lines {
  #rest = '';

  /** The lines that are whole by now. */
  take(text: string): string[] {
    const parts = (this.#rest + text).split(/[\r\n]+/);
    this.#rest = (parts.pop() ?? '').slice(-LONGEST);
    return parts;
  }
}

/** What a scale with a serial line prints of itself, read without knowing whose it is. */

export interface SerialReading {
  /** Undefined where the line says that it is over or under what it can show. */
  readonly massMg: number | undefined;
  /** What the line says of it; undefined where it says nothing: then whoever reads must see it stand. */
  readonly stable: boolean | undefined;
  readonly over: boolean;
  readonly under: boolean;
}

/** Milligrams in a unit; pounds and ounces are the international avoirdupois ones (1959). */
const UNITS: Readonly<Record<string, number>> = {
  mg: 1,
  g: 1_000,
  kg: 1_000_000,
  lb: 453_592.37,
  oz: 28_349.523125,
};

/**
 * Reads one line: a number with its sign, a unit of mass behind it, and words that mark it.
 *
 * Marks   stable: ST, S, STABLE; not yet: US, U, SD, D, M, ?, DYN, UNSTABLE; over: OL, OVER, and a row of + or ^; under: UL, UNDER, and a row of - or _.
 * Keeps   a line of two numbers, or one without a unit, is not guessed at: undefined.
 * Source  common practice of continuous-output scales: mark, sign, number, unit; from memory.
 * @example "ST,GS,+  1.234kg" -> 1,234,000 mg, stable; "US  +0.5 lb" -> 226,796 mg, moving; "OL" -> over
 */
export function readSerialLine(line: string): SerialReading | undefined {
  const text = line.replace(/[^ -~]/g, ' ').trim();
  const words = text.toUpperCase().split(/[\s,;:=]+/);
  const has = (...of: readonly string[]): boolean => of.some((w) => words.includes(w));
  const over = has('OL', 'OVER', 'OVERLOAD') || /^[+^]{3,}$/.test(text);
  const under = has('UL', 'UNDER', 'UNDERLOAD') || /^[-_]{3,}$/.test(text);
  if (over || under) return { massMg: undefined, stable: undefined, over, under };
  const found = [...text.matchAll(/([+-]?)\s*(\d+(?:\.\d+)?)\s*(kg|mg|g|lb|oz)\b/gi)];
  const [only] = found;
  if (only === undefined || found.length > 1) return undefined;
  const [, sign, figure = '', unit = ''] = only;
  const perUnit = UNITS[unit.toLowerCase()];
  if (perUnit === undefined) return undefined;
  const mass = Math.round(Number(figure) * perUnit) * (sign === '-' ? -1 : 1);
  const moving = has('US', 'U', 'SD', 'D', 'M', 'DYN', 'UNSTABLE') || text.includes('?');
  const steady = has('ST', 'S', 'STABLE');
  return {
    massMg: mass === 0 ? 0 : mass,
    stable: moving ? false : steady ? true : undefined,
    over: false,
    under: false,
  };
}
