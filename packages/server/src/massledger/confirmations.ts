/** What is to be read before something is done to a lot, and the refusal that asks for it. */
import { isPastDate, type KeepingConfirmation } from '@zabrik/core';
import { Problem } from '../http/problem.ts';
import type { HeldLot } from './lockLots.ts';

const confirmations: Readonly<Record<KeepingConfirmation, string>> = {
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
export const confirmationWords = (asked: readonly KeepingConfirmation[]): string[] =>
  asked.map((n) => confirmations[n]);

/** Asks for a confirmation unless it was given. Errors: `needs_confirmation` with all there is to read. */
export function mindConfirmations(asked: readonly KeepingConfirmation[], given: boolean): void {
  if (asked.length > 0 && !given) throw new Problem('needs_confirmation', confirmationWords(asked).join(' '));
}

/** Asks before lots past their date are put under a knife, naming them. Errors: `needs_confirmation`. */
export function mindDates(
  lots: readonly Pick<HeldLot, 'code' | 'name' | 'useBy'>[],
  today: string,
  given: boolean,
): void {
  const late = lots.filter((lot) => isPastDate(lot.useBy, today));
  if (late.length > 0 && !given)
    throw new Problem(
      'needs_confirmation',
      `${late.map((lot) => `Lot ${lot.code}, ${lot.name}, use by ${lot.useBy}`).join('; ')}: ${confirmations['past-date']}`,
    );
}
