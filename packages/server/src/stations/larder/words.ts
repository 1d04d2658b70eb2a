/** What the larder says of what was done to a lot, and why it will not do something. */
import type { KeepingNod, KeepingRefusal } from '@zabrik/core';
import { formatTemperature, isPastDate } from '@zabrik/core';
import { Problem } from '../../http/problem.ts';
import type { HeldLot } from '../../massledger/lockLots.ts';

export const refusals: Readonly<Record<KeepingRefusal, string>> = {
  'already-frozen': 'It is frozen already.',
  'not-frozen': 'It is not frozen.',
  'past-date': 'It is past its date: freezing does not bring it back. Throw it away with the reason.',
  'freezing-takes-a-freezer':
    'To put it in the freezer is to freeze it. Choose a freezer and freeze it, so that its date is kept.',
  'thawing-takes-a-chiller': 'Thaw it in a fridge or the cold room, on a tray.',
  'frozen-stays-frozen': 'It is frozen. Thaw it, so that its date starts to count again.',
  'already-opened': 'It was opened before.',
  'already-there': 'It is so already.',
};

const nods: Readonly<Record<KeepingNod, string>> = {
  refreeze:
    'It was frozen and thawed before. What was raw is not frozen again unless it was cooked since; your own plan and local code decide.',
  'raw-among-ready': 'This is raw, and that place is for what is ready to eat. Raw stands below and apart.',
  'ready-among-raw':
    'This is ready to eat, and that place is for what is raw. Cover it and keep it above, or choose another place.',
  'date-later':
    'That is later than its date now. A date is made longer only for a reason that you would show an inspector.',
  'out-of-the-cold':
    'This keeps only in the cold, and that place is not cold. Bacteria grow in it from the first hour; local code says how long it may stand.',
  'past-date':
    'It is past its date. Opening or cutting it does not make it good: it is thrown away with the reason, unless a chef can show why the date was wrong.',
  'opened-frozen':
    'It is frozen. An opened pack dries and takes up smells in the freezer, and its days count from today.',
  'thaw-in-pack':
    'If this fish is in a vacuum pack, cut the pack open before it thaws: without air and above 3 °C, botulinum can grow in it unseen.',
};

/** What is to be read before each is done. */
export const wordsOfNods = (asked: readonly KeepingNod[]): string[] => asked.map((n) => nods[n]);

/** Asks for a nod unless it was given. Errors: `needs_a_nod` with all there is to read. */
export function mindNods(asked: readonly KeepingNod[], given: boolean): void {
  if (asked.length > 0 && !given) throw new Problem('needs_a_nod', wordsOfNods(asked).join(' '));
}

/** Asks before lots past their date are put under a knife, naming them. Errors: `needs_a_nod`. */
export function mindDates(
  lots: readonly Pick<HeldLot, 'code' | 'name' | 'useBy'>[],
  today: string,
  given: boolean,
): void {
  const late = lots.filter((lot) => isPastDate(lot.useBy, today));
  if (late.length > 0 && !given)
    throw new Problem(
      'needs_a_nod',
      `${late.map((lot) => `Lot ${lot.code}, ${lot.name}, use by ${lot.useBy}`).join('; ')}: ${nods['past-date']}`,
    );
}

const text = (value: unknown): string => (typeof value === 'string' ? value : '');

/** One event of a lot, in a phrase. */
export function eventWords(
  kind: string,
  after: Readonly<Record<string, unknown>>,
  placeName: (id: string) => string,
): string {
  const place = placeName(text(after['placeId']));
  switch (kind) {
    case 'move':
      return `moved to ${place}`;
    case 'freeze':
      return `frozen, into ${place}`;
    case 'thaw':
      return `thawed, into ${place}`;
    case 'open':
      return 'opened';
    case 'date':
      return `use-by set to ${text(after['useBy'])}`;
    case 'reserve':
      return text(after['reservedFor']) === '' ? 'no longer reserved' : `reserved for ${text(after['reservedFor'])}`;
    case 'hold':
      return text(after['held']) === '' ? 'let go' : 'held back';
    case 'reading':
      return `probe ${formatTemperature(Number(after['centiC']))}`;
    case 'label':
      return `label printed, ${text(after['copies'])}`;
    default:
      return 'put back as it was';
  }
}
