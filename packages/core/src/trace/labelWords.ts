import { allergenWords } from './allergens.ts';
import type { LabelWords } from './labelLayout.ts';

const dayWords = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});

/** The words of a label: allergens as the house's region names them. */
export const labelWords = (us: boolean): LabelWords => ({
  dates: { made: 'made', frozen: 'frozen', thawed: 'thawed', 'use-by': 'USE BY' },
  day: (iso) => dayWords.format(new Date(`${iso}T00:00:00Z`)).replace(',', ''),
  allergens: (ids) => allergenWords(ids, us),
  contains: 'Contains:',
  noAllergens: 'No listed allergen known.',
  ready: 'ready to eat',
  raw: 'raw',
  reprint: 'REPRINT',
});
