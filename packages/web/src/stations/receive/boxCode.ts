/** What a scanned box says, put into the form, and in words where it cannot be read. */
import { formatMass, type Gs1Fault, type Gs1Message, gs1Title, massTyped, parseGs1, Refusal } from '@zabrik/core';
import type { DeliveryInput } from './deliveryForm.ts';

export interface BoxRead {
  /** Fields of the form that the box fills. */
  readonly fills: Partial<DeliveryInput>;
  /** What was read, one phrase for each element. */
  readonly says: readonly string[];
  /** What someone has to look at. */
  readonly mind: readonly string[];
}

const faults: Readonly<Record<Gs1Fault, (data: Refusal['data']) => string>> = {
  empty: () => 'There is nothing in this code.',
  'too-long': () => 'No box carries a code this long. Was something else scanned?',
  'unknown-ai': ({ ai, at }) =>
    `What begins with ${ai} at place ${Number(at) + 1} is no known element. Type the box by hand.`,
  'bad-data': ({ ai, data }) =>
    `${ai === undefined ? 'This' : `${gs1Title(String(ai)) ?? 'An element'} (${ai})`} cannot be read: “${String(data).slice(0, 30)}”. Scan it again.`,
  'check-digit': ({ ai }) =>
    `The check digit of ${gs1Title(String(ai)) ?? ai} is wrong: a digit was misread. Scan it again.`,
  'bad-month': ({ date }) => `${date} is no date: there is no such month.`,
  'bad-day': ({ date }) => `${date} is no date: that month has no such day.`,
  'bad-time': ({ data }) => `${data} is no time of day.`,
  repeated: ({ ai }) => `The code says ${gs1Title(String(ai)) ?? ai} twice, and not the same.`,
  '01-and-02': () => 'The code names an item and the items inside it at once. One of them is wrong.',
  '02-without-37': () => 'The code names what is inside but not how many.',
  '37-without-02': () => 'The code counts what is inside but does not say what.',
};

const methods: Readonly<Record<string, DeliveryInput['method']>> = {
  '01': 'caught',
  '02': 'caught-in-freshwater',
  '03': 'farmed',
  '04': 'farmed',
};

const printed = (date: string): string => date.split('-').reverse().join('/');

function read(message: Gs1Message): BoxRead {
  const fills: Partial<DeliveryInput> = {};
  const says: string[] = [];
  const mind: string[] = [];
  const notes: string[] = [];
  for (const { ai, raw, date, time, until, massMg, value } of message.fields) {
    const title = gs1Title(ai) ?? `element (${ai})`;
    if (massMg !== undefined && /^3[12]0/.test(ai)) {
      fills.invoice = massTyped(massMg);
      says.push(`${title} ${formatMass(massMg)}`);
    } else if (['15', '16', '17', '7003'].includes(ai) && date !== undefined) {
      // where a box carries several dates, use-by is the one that counts
      if (fills.useBy === undefined || ai === '17') fills.useBy = date;
      says.push(`${title} ${printed(date)}${time === undefined ? '' : ` ${time}`}`);
    } else if (ai === '7007' && date !== undefined) {
      fills.landedOn = until ?? date;
      says.push(`${title} ${printed(date)}${until === undefined ? '' : ` to ${printed(until)}`}`);
    } else if (ai === '30' && value !== undefined && value > 0) {
      fills.animals = String(value);
      says.push(`${title} ${value}`);
    } else if (ai === '37' && value !== undefined) {
      // packs in a box are no animals: how many are in a pack the code does not say
      says.push(`${title} ${value}`);
      mind.push(`${value} packs are in it. How many animals that is, the code does not say.`);
    } else if (ai === '10') {
      fills.supplierLot = raw;
      says.push(`${title} ${raw}`);
    } else if (ai === '7005') {
      fills.catchArea = raw;
      says.push(`${title} ${raw}`);
    } else if (ai === '7009') {
      fills.gear = raw;
      says.push(`${title} ${raw}`);
    } else if (ai === '7010') {
      // 01 sea, 02 freshwater, 03 farmed (04 cultivated: taken as farmed)
      const method = methods[raw];
      if (method !== undefined) fills.method = method;
      says.push(`${title} ${raw}`);
    } else if (['01', '02', '00', '21', '251', '7008'].includes(ai)) {
      notes.push(`${title} ${raw}`);
      says.push(`${title} ${raw}`);
    } else says.push(`${title} ${date === undefined ? raw : printed(date)}`);
  }
  if (notes.length > 0) fills.note = notes.join('; ').slice(0, 500);
  if (message.weightMissing) mind.push('A box of varying weight that does not say its weight: put it on the scale.');
  if (message.lostSeparator !== undefined) {
    const { inAi, kept, date, massMg } = message.lostSeparator;
    const what = inAi === '10' ? 'lot' : (gs1Title(inAi) ?? inAi);
    mind.push(
      date !== undefined
        ? `The ${what} ends like a date. If the scanner drops separators, the ${what} is ${kept} and the date ${printed(date)}.`
        : `The ${what} ends like a weight. If the scanner drops separators, the ${what} is ${kept} and the net weight ${formatMass(massMg ?? 0)}.`,
    );
  }
  return { fills, says, mind };
}

/**
 * Reads a box code as scanned or as printed with brackets.
 *
 * Errors  a sentence for the cook where it cannot be read.
 */
export function readBox(scanned: string, thisYear: number): BoxRead | string {
  try {
    return read(parseGs1(scanned, thisYear));
  } catch (error) {
    if (error instanceof Refusal && error.code === 'not_a_box_code')
      return faults[error.data['why'] as Gs1Fault](error.data);
    throw error;
  }
}
