import { expect, it } from 'vitest';
import { nothingYet, takeOnForm } from './takeOnForm.ts';

const form = takeOnForm('EUR', new Set(['flour']));
const hake = { ...nothingYet, bought: 'hake/gutted', mass: '2,86 kg', useBy: '2026-12-03' };
const wrong = (said: object) =>
  Object.fromEntries(
    form.safeParse({ ...hake, ...said }).error?.issues.map((i) => [i.path.join('.'), i.message]) ?? [],
  );

it('a thing as it is bought, a thing off the shelf without a date, a piece by its kind', () => {
  expect(form.parse({ ...hake, cost: '31,46', note: ' from the old book ' })).toEqual({
    what: { kind: 'bought', species: 'hake', form: 'gutted' },
    massMg: 2_860_000,
    pieces: 1,
    useBy: '2026-12-03',
    frozen: false,
    costMinor: 3_146,
    note: 'from the old book',
  });
  expect(form.parse({ ...hake, bought: 'goods/flour', useBy: '' })).toMatchObject({
    what: { kind: 'goods', goods: 'flour' },
    useBy: null,
    costMinor: null,
    note: null,
  });
  const piece = { as: 'piece', species: 'hake', category: 'white-fish-portion', name: 'fillet', pieces: '4' } as const;
  expect(form.parse({ ...hake, ...piece, ready: true, frozen: true })).toMatchObject({
    what: { kind: 'piece', species: 'hake', category: 'white-fish-portion', name: 'fillet', ready: true },
    pieces: 4,
    frozen: true,
  });
});

it('says what is missing, each under its field', () => {
  expect(wrong({ bought: '' })).toEqual({ bought: 'What it is' });
  expect(wrong({ useBy: '' })).toEqual({ useBy: 'Until when it keeps' });
  expect(wrong({ bought: 'goods/butter', useBy: '' })).toEqual({ useBy: 'Until when it keeps' });
  expect(wrong({ as: 'piece' })).toEqual({
    species: 'Of which animal',
    category: 'Which kind of piece',
    name: 'What it is called',
  });
  expect(Object.keys(wrong({ mass: 'some', pieces: '0', cost: 'dear' })).sort()).toEqual(['cost', 'mass', 'pieces']);
});
