/**
 * GS1 element strings as they stand on boxes, read and written.
 *
 * Source  GS1 General Specifications (application identifiers, predefined lengths, check digit, century rule), recalled from
 *         memory; checked in the tests against an independent library of the registry and worked examples.
 */
import { Refusal } from '../refusal.ts';

/** The separator as a scanner transmits it: FNC1, ASCII 29. */
export const SEPARATOR = '\u001d';

/** What was wrong with a box code. */
export type Gs1Fault =
  | 'empty'
  | 'too-long'
  | 'unknown-ai'
  | 'bad-data'
  | 'check-digit'
  | 'bad-month'
  | 'bad-day'
  | 'bad-time'
  | 'repeated'
  | '01-and-02'
  | '02-without-37'
  | '37-without-02';

export interface Gs1Field {
  readonly ai: string;
  /** The data as it stood in the code, without the identifier. */
  readonly raw: string;
  /** "2026-11-04"; the last day of the month where the code says day 00. */
  readonly date?: string;
  /** "18:30" */
  readonly time?: string;
  /** The last day of a range that begins with `date`. */
  readonly until?: string;
  /** A mass in whole milligrams. */
  readonly massMg?: number;
  /** A count, an amount or a price with its implied decimals. */
  readonly value?: number;
  /** ISO 4217 number of the money, where the code says it. */
  readonly currency?: string;
}

export interface Gs1Message {
  /** In the order they were scanned. */
  readonly fields: readonly Gs1Field[];
  /** A lot that may have swallowed what came after it: keyboard-like scanners drop the separator. */
  readonly lostSeparator?: {
    /** The element it happened in, and what it says without what it swallowed. */
    readonly inAi: string;
    readonly kept: string;
    readonly ai: string;
    /** Where what was swallowed is a date. */
    readonly date?: string;
    /** Where it is a net weight. */
    readonly massMg?: number;
  };
  /** A box of varying weight without its weight: it goes on the scale. */
  readonly weightMissing: boolean;
}

type Kind =
  | 'key'
  | 'text'
  | 'date'
  | 'dates'
  | 'minute'
  | 'mass-kg'
  | 'mass-lb'
  | 'count'
  | 'amount'
  | 'money'
  | 'digits';

interface Rule {
  readonly title: string;
  readonly kind: Kind;
  readonly data: RegExp;
}

// invariant characters of GS1 AI encodable character set 82
const X = '[!"%&\'()*+,\\-./0-9:;<=>?A-Z_a-z]';
const text = (max: number, title: string): Rule => ({ title, kind: 'text', data: new RegExp(`^${X}{1,${max}}$`) });
const digits = (length: string, title: string, kind: Kind = 'digits'): Rule => ({
  title,
  kind,
  data: new RegExp(`^\\d{${length}}$`),
});

const rules = new Map<string, Rule>([
  ['00', digits('18', 'shipping container', 'key')],
  ['01', digits('14', 'trade item', 'key')],
  ['02', digits('14', 'contained trade items', 'key')],
  ['10', text(20, 'batch or lot')],
  ['11', digits('6', 'production date', 'date')],
  ['12', digits('6', 'due date', 'date')],
  ['13', digits('6', 'packing date', 'date')],
  ['15', digits('6', 'best before', 'date')],
  ['16', digits('6', 'sell by', 'date')],
  ['17', digits('6', 'use by', 'date')],
  ['20', digits('2', 'variant')],
  ['21', text(20, 'serial number')],
  ['22', text(20, 'consumer product variant')],
  ['235', text(28, 'third party’s serial number')],
  ['240', text(30, 'additional item identification')],
  ['241', text(30, 'customer part number')],
  ['242', digits('1,6', 'made-to-order variation')],
  ['243', text(20, 'packaging component')],
  ['250', text(30, 'secondary serial number')],
  ['251', text(30, 'reference to source entity')],
  ['30', digits('1,8', 'count', 'count')],
  ['37', digits('1,8', 'count of contained items', 'count')],
  ['254', text(20, 'extension of a place')],
  ['400', text(30, 'purchase order number')],
  ['401', text(30, 'consignment')],
  ['402', digits('17', 'shipment', 'key')],
  ['403', text(30, 'routing code')],
  ['420', text(20, 'ship to postal code')],
  ['421', { title: 'ship to postal code', kind: 'text', data: new RegExp(`^\\d{3}${X}{1,9}$`) }],
  ['422', digits('3', 'country of origin')],
  ['423', { title: 'countries of initial processing', kind: 'digits', data: /^(?:\d{3}){1,5}$/ }],
  ['424', digits('3', 'country of processing')],
  ['425', { title: 'countries of disassembly', kind: 'digits', data: /^(?:\d{3}){1,5}$/ }],
  ['426', digits('3', 'country of full process chain')],
  ['427', text(3, 'subdivision of origin')],
  ['7001', digits('13', 'NATO stock number')],
  ['7002', text(30, 'UN/ECE meat cut')],
  ['7003', digits('10', 'expiry date and time', 'minute')],
  ['7004', digits('1,4', 'active potency')],
  ['7005', text(12, 'catch area')],
  ['7006', digits('6', 'first freeze date', 'date')],
  ['7007', { title: 'harvest date', kind: 'dates', data: /^(?:\d{6}|\d{12})$/ }],
  ['7008', text(3, 'species')],
  ['7009', text(10, 'fishing gear')],
  ['7010', text(2, 'production method')],
  ['7011', { title: 'test by', kind: 'text', data: /^(?:\d{6}|\d{10})$/ }],
  ['7020', text(20, 'refurbishment lot')],
  ['7021', text(20, 'functional status')],
  ['7040', text(4, 'economic operator')],
  ['8001', digits('14', 'roll dimensions')],
  ['8003', { title: 'returnable asset', kind: 'text', data: new RegExp(`^\\d{14}${X}{0,16}$`) }],
  ['8004', text(30, 'individual asset')],
  ['8006', digits('18', 'piece of a trade item')],
  ['8020', text(25, 'payment slip')],
  ['8026', digits('18', 'pieces contained')],
  ['8005', digits('6', 'price per unit')],
  ['8008', { title: 'production date and time', kind: 'minute', data: /^(?:\d{8}|\d{10}|\d{12})$/ }],
]);
for (let n = 0; n <= 9; n += 1) {
  if (n <= 5) {
    rules.set(`310${n}`, digits('6', 'net weight', 'mass-kg'));
    rules.set(`320${n}`, digits('6', 'net weight', 'mass-lb'));
    rules.set(`330${n}`, digits('6', 'gross weight', 'mass-kg'));
    rules.set(`340${n}`, digits('6', 'gross weight', 'mass-lb'));
    rules.set(`356${n}`, digits('6', 'net weight in troy ounces'));
    rules.set(`357${n}`, digits('6', 'net weight in ounces'));
  }
  // lengths, areas, volumes: six figures, whatever they measure; kept as they stand
  for (let tens = 311; tens <= 369; tens += 1)
    if (!rules.has(`${tens}${n}`)) rules.set(`${tens}${n}`, digits('6', 'measure'));
  rules.set(`390${n}`, digits('1,15', 'amount payable or coupon', 'amount'));
  rules.set(`391${n}`, { title: 'amount payable', kind: 'money', data: /^\d{3}\d{1,15}$/ });
  rules.set(`394${n}`, digits('4', 'discount'));
  if (n <= 3) rules.set(`392${n}`, digits('1,15', 'amount payable', 'amount'));
  if (n <= 3) rules.set(`393${n}`, { title: 'amount payable', kind: 'money', data: /^\d{3}\d{1,15}$/ });
  rules.set(`395${n}`, digits('6', 'price per measure', 'amount'));
  rules.set(`703${n}`, { title: 'processor', kind: 'text', data: new RegExp(`^\\d{3}${X}{1,27}$`) });
  if (n <= 7) rules.set(`41${n}`, digits('13', 'party or place', 'key'));
  rules.set(`9${n}`, text(90, 'internal'));
}

/** Whole length, identifier included, of what needs no separator: decided by the first two digits alone. */
const predefined: Readonly<Record<string, number>> = {
  '00': 20,
  '01': 16,
  '02': 16,
  '03': 16,
  '04': 18,
  '11': 8,
  '12': 8,
  '13': 8,
  '14': 8,
  '15': 8,
  '16': 8,
  '17': 8,
  '18': 8,
  '19': 8,
  '20': 4,
  '31': 10,
  '32': 10,
  '33': 10,
  '34': 10,
  '35': 10,
  '36': 10,
  '41': 16,
};

/** More than any box carries: longer than the largest 2D symbol holds. */
const LONGEST = 3_200;

const fault = (why: Gs1Fault, data: Record<string, string | number>): Refusal =>
  new Refusal('not_a_box_code', { why, ...data });

/**
 * The check digit to the digits before it: weights 3, 1, 3, ... from the right.
 *
 * @example checkDigit("629104150021") -> 3
 */
export function checkDigit(body: string): number {
  let sum = 0;
  for (let i = body.length - 1, weight = 3; i >= 0; i -= 1, weight = 4 - weight)
    sum += (body.charCodeAt(i) - 48) * weight;
  return (10 - (sum % 10)) % 10;
}

const twoDigits = (n: number): string => (n < 10 ? `0${n}` : String(n));
/** The number of two digits that stand at this place. */
const pairAt = (text: string, at: number): number => (text.charCodeAt(at) - 48) * 10 + text.charCodeAt(at + 1) - 48;
const monthDays = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31] as const;
const isLeap = (year: number): boolean => year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);

/**
 * A six-digit date: the century that is nearest, day 00 the last of its month.
 *
 * Errors  `not_a_box_code` with why "bad-month" or "bad-day".
 * @example gs1Date("280200", 2026) -> "2028-02-29"; gs1Date("991231", 2026) -> "1999-12-31"
 */
export function gs1Date(yymmdd: string, thisYear: number): string {
  const yy = pairAt(yymmdd, 0);
  const month = pairAt(yymmdd, 2);
  const day = pairAt(yymmdd, 4);
  const ahead = yy - (thisYear % 100);
  const century = Math.floor(thisYear / 100) + (ahead >= 51 ? -1 : ahead <= -50 ? 1 : 0);
  const year = century * 100 + yy;
  const days = monthDays[month - 1];
  if (days === undefined) throw fault('bad-month', { date: yymmdd });
  const last = month === 2 && isLeap(year) ? 29 : days;
  if (day > last) throw fault('bad-day', { date: yymmdd });
  return `${year}-${twoDigits(month)}-${twoDigits(day === 0 ? last : day)}`;
}

const MG_PER_POUND = 453_592.37;
/** Ten to the n: the fourth digit of an identifier says how many decimals. */
const powers = [1, 10, 100, 1_000, 10_000, 100_000, 1e6, 1e7, 1e8, 1e9] as const;

/** What stands in one element, read. */
function readField(ai: string, raw: string, rule: Rule, thisYear: number): Gs1Field {
  const decimals = ai.length === 4 ? (powers[ai.charCodeAt(3) - 48] ?? 1) : 1;
  switch (rule.kind) {
    case 'key':
      if (checkDigit(raw.slice(0, -1)) !== raw.charCodeAt(raw.length - 1) - 48)
        throw fault('check-digit', { ai, data: raw });
      return { ai, raw };
    case 'date':
      return { ai, raw, date: gs1Date(raw, thisYear) };
    case 'dates': {
      const date = gs1Date(raw.slice(0, 6), thisYear);
      return raw.length === 6 ? { ai, raw, date } : { ai, raw, date, until: gs1Date(raw.slice(6), thisYear) };
    }
    case 'minute': {
      const hour = Number(raw.slice(6, 8));
      const minute = Number(raw.slice(8, 10) || 0);
      if (hour > 23 || minute > 59) throw fault('bad-time', { ai, data: raw });
      return { ai, raw, date: gs1Date(raw.slice(0, 6), thisYear), time: `${twoDigits(hour)}:${twoDigits(minute)}` };
    }
    case 'mass-kg':
      return { ai, raw, value: Number(raw) / decimals, massMg: Math.round((Number(raw) * 1_000_000) / decimals) };
    case 'mass-lb':
      return { ai, raw, value: Number(raw) / decimals, massMg: Math.round((Number(raw) * MG_PER_POUND) / decimals) };
    case 'count':
      return { ai, raw, value: Number(raw) };
    case 'amount':
      return { ai, raw, value: Number(raw) / decimals };
    case 'money':
      return { ai, raw, currency: raw.slice(0, 3), value: Number(raw.slice(3)) / decimals };
    default:
      return { ai, raw };
  }
}

interface Identified {
  readonly ai: string;
  readonly rule: Rule;
  /** Whole length with the identifier; undefined where it goes on to a separator. */
  readonly fixed: number | undefined;
}
const identified = new Map(
  [...rules].map(([ai, rule]): [string, Identified] => [ai, { ai, rule, fixed: predefined[ai.slice(0, 2)] }]),
);

/** How many digits an identifier has is decided by its first two; 0 where none begins so. */
function identifierLength(two: string): number {
  if (!/^\d\d$/.test(two)) return 0;
  const n = Number(two);
  if (n <= 4 || (n >= 10 && n <= 22) || n === 30 || n === 37 || n >= 90) return 2;
  if ((n >= 23 && n <= 25) || (n >= 40 && n <= 42) || n === 71) return 3;
  return (n >= 31 && n <= 36) || n === 39 || n === 43 || n === 70 || n === 72 || (n >= 80 && n <= 82) ? 4 : 0;
}

/** What is well formed and of no meaning to us is kept as it stands: one strange element must not cost the whole box. */
const asRead: Rule = { title: 'element', kind: 'text', data: new RegExp(`^${X}{1,90}$`) };

/** The identifier that begins here. None is the beginning of another, so the shortest that is known is the one. */
function identifierAt(code: string, at: number): Identified {
  for (let length = 2; length <= 4; length += 1) {
    const found = identified.get(code.slice(at, at + length));
    if (found !== undefined) return found;
  }
  const two = code.slice(at, at + 2);
  const length = identifierLength(two);
  const ai = code.slice(at, at + length);
  if (length === 0 || !/^\d+$/.test(ai) || ai.length < length)
    throw fault('unknown-ai', { ai: code.slice(at, at + 4), at });
  return { ai, rule: asRead, fixed: predefined[two] };
}

/** A number of 8, 12, 13 or 14 digits that its check digit bears out: what retail and outer boxes carry without identifiers. */
const asItem = (code: string): string | undefined =>
  /^(?:\d{8}|\d{12,14})$/.test(code) && checkDigit(code.slice(0, -1)) === Number(code.at(-1))
    ? code.padStart(14, '0')
    : undefined;

/**
 * A GS1 Digital Link as an element string: identifiers and their values in turn in the path, the rest of them in the query.
 *
 * Source  GS1 Digital Link URI syntax, uncompressed form with numeric identifiers; recalled.
 */
function ofLink(link: string): string {
  const [, path = '', query = ''] = /^https?:\/\/[^/?#]+([^?#]*)\??([^#]*)/i.exec(link) ?? [];
  const plain = (text: string): string => {
    try {
      return decodeURIComponent(text);
    } catch {
      throw fault('bad-data', { data: text.slice(0, 40), at: 0 });
    }
  };
  const parts = path.split('/').filter((p) => p !== '');
  const from = parts.findIndex((p) => ['00', '01', '414', '8006'].includes(p));
  if (from === -1) throw fault('bad-data', { data: link.slice(0, 40), at: 0 });
  const pairs: [string, string][] = [];
  for (let i = from; i + 1 < parts.length; i += 2) pairs.push([parts[i] ?? '', plain(parts[i + 1] ?? '')]);
  for (const [ai = '', value = ''] of query.split('&').map((p) => p.split('=')))
    if (/^\d{2,4}$/.test(ai)) pairs.push([ai, plain(value)]);
  return pairs
    .map(
      ([ai, raw]) =>
        `${ai}${ai === '01' ? raw.padStart(14, '0') : raw}${predefined[ai.slice(0, 2)] === undefined ? SEPARATOR : ''}`,
    )
    .join('');
}

/** The way a label prints it for people, "(01)9952...(10)T2611A", as a scanner would send it. */
function unbracketed(printed: string): string {
  const parts = [...printed.matchAll(/\((\d{2,4})\)\s*(.*?)\s*(?=\(\d{2,4}\)|$)/g)];
  if (parts.map((p) => p[0]).join('').length !== printed.length)
    throw fault('bad-data', { data: printed.slice(0, 40), at: 0 });
  return parts
    .map(([, ai = '', raw = '']) => `${ai}${raw}${predefined[ai.slice(0, 2)] === undefined ? SEPARATOR : ''}`)
    .join('');
}

/** A lot or serial that ends like a date or a net weight: what a lost separator leaves behind. */
function swallowed(inAi: string, raw: string, thisYear: number): Gs1Message['lostSeparator'] {
  if (raw.length < 9) return undefined;
  const weight = /^(.+)(310[0-5])(\d{6})$/.exec(raw);
  if (weight?.[1] !== undefined && weight[2] !== undefined && weight[3] !== undefined)
    return {
      inAi,
      kept: weight[1],
      ai: weight[2],
      massMg: Math.round((Number(weight[3]) * 1_000_000) / (powers[weight[2].charCodeAt(3) - 48] ?? 1)),
    };
  const tail = /^(.+)(1[1357])(\d{6})$/.exec(raw);
  if (tail?.[1] === undefined || tail[2] === undefined || tail[3] === undefined) return undefined;
  try {
    return { inAi, kept: tail[1], ai: tail[2], date: gs1Date(tail[3], thisYear) };
  } catch {
    return undefined;
  }
}

/**
 * Reads what a scanner sends: an element string with or without its symbology prefix, printed with brackets, a Digital Link, or the bare
 * item number of an EAN, UPC or ITF-14.
 *
 * Keeps   digits alone of an item number's length are one when their check digit says so, whatever identifiers they could begin with; an
 *         element that is well formed and unknown is kept as it stands.
 *
 * Shapes  fields in scanned order, at least one.
 * Errors  `not_a_box_code`, with `why` (Gs1Fault), the identifier and where in the code it stood.
 * @example parseGs1("0199521234001013310300624017261104", 2026).fields[1] -> { ai: "3103", massMg: 6_240_000, ... }
 */
export function parseGs1(scanned: string, thisYear: number): Gs1Message {
  if (scanned.length > LONGEST) throw fault('too-long', { length: scanned.length });
  // wedges that cannot send FNC1 write it out, and some send it twice
  const trimmed = scanned.trim().replace(/(?:<GS>|\{GS\}|\u241d)/gi, SEPARATOR);
  const prefix = /^\]([A-Za-z]\d)/.exec(trimmed)?.[1];
  const bare = prefix === undefined ? trimmed : trimmed.slice(3);
  // EAN, UPC and ITF carry an item number and nothing else
  const plain = prefix !== undefined && /^(?:E[0-4]|I[01])$/.test(prefix);
  const item = prefix === undefined || plain ? asItem(bare) : undefined;
  if (plain && item === undefined) throw fault('check-digit', { ai: '01', data: bare.slice(0, 40) });
  const code = (
    item !== undefined
      ? `01${item}`
      : /^https?:\/\//i.test(bare)
        ? ofLink(bare)
        : bare.startsWith('(')
          ? unbracketed(bare)
          : bare
  )
    .split(SEPARATOR)
    .filter((part) => part !== '')
    .join(SEPARATOR);
  if (code === '') throw fault('empty', {});
  const fields: Gs1Field[] = [];
  const seen = new Map<string, string>();
  for (let at = 0; at < code.length; ) {
    const { ai, rule, fixed } = identifierAt(code, at);
    const stop = fixed === undefined ? code.indexOf(SEPARATOR, at) : at + fixed;
    const end = stop === -1 ? code.length : Math.min(stop, code.length);
    const raw = code.slice(at + ai.length, end);
    if (!rule.data.test(raw)) throw fault('bad-data', { ai, data: raw, at });
    const before = seen.get(ai);
    if (before !== undefined && before !== raw) throw fault('repeated', { ai, data: raw });
    if (before === undefined) fields.push(readField(ai, raw, rule, thisYear));
    seen.set(ai, raw);
    at = code[end] === SEPARATOR ? end + 1 : end;
  }
  if (seen.has('01') && seen.has('02')) throw fault('01-and-02', {});
  if (seen.has('02') && !seen.has('37')) throw fault('02-without-37', {});
  if (seen.has('37') && !seen.has('02')) throw fault('37-without-02', {});
  // digits alone, as long as an item number, that read as one running text: an item number with a digit misread
  const [only] = fields;
  if (
    prefix === undefined &&
    fields.length === 1 &&
    only !== undefined &&
    /^\d{12,14}$/.test(bare) &&
    rules.get(only.ai)?.kind === 'text'
  )
    throw fault('check-digit', { ai: '01', data: bare });
  const lostSeparator = fields
    .filter((f) => /^(?:10|21|24[01]|25[01])$/.test(f.ai))
    .map((f) => swallowed(f.ai, f.raw, thisYear))
    .find((s) => s !== undefined);
  const varies = (seen.get('01') ?? seen.get('02'))?.startsWith('9') === true;
  return {
    fields,
    ...(lostSeparator === undefined ? {} : { lostSeparator }),
    // gross is the box's, not what is in it
    weightMissing: varies && !fields.some((f) => f.massMg !== undefined && /^3[12]0/.test(f.ai)),
  };
}

/** What an identifier stands for, in the field's words. */
export const gs1Title = (ai: string): string | undefined => rules.get(ai)?.title;

/**
 * Writes an element string: a separator after everything of no predefined length, except at the end.
 *
 * Errors  `not_a_box_code` where a field does not fit its identifier.
 */
export function writeGs1(fields: readonly { readonly ai: string; readonly raw: string }[]): string {
  return fields
    .map(({ ai, raw }, i) => {
      if (rules.get(ai)?.data.test(raw) !== true) throw fault('bad-data', { ai, data: raw });
      return `${ai}${raw}${predefined[ai.slice(0, 2)] === undefined && i < fields.length - 1 ? SEPARATOR : ''}`;
    })
    .join('');
}
