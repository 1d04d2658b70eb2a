import { recipeById } from '@zabrik/catalogue';
import { expect, it } from 'vitest';
import { differences } from './differences.ts';

const fumet = recipeById.get('fish-fumet');
if (fumet === undefined) throw new Error('no fumet');
const [first] = fumet.ingredients;
if (first === undefined) throw new Error('nothing in it');

it('says nothing of what is the same', () => expect(differences(fumet, fumet)).toEqual([]));

it('says each thing that differs, what it was and what it is', () => {
  const now = {
    ...fumet,
    title: 'Our fumet',
    accepts: [...fumet.accepts.slice(1), 'flatfish-fringe'],
    ingredients: [
      { ...first, perBase: 0.75, allergens: ['celery'] },
      ...fumet.ingredients.slice(1, -1),
      { id: 'fennel', name: 'fennel', perBase: 0.05, low: 0.05, high: 0.05, allergens: [] },
    ],
    steps: fumet.steps.slice(0, -1),
    output: { ...fumet.output, mean: 0.7 },
  };
  const lines = differences(fumet, now);
  const of = (what: string) => lines.find((l) => l.what === what);
  expect(of('name')).toEqual({ what: 'name', was: fumet.title, is: 'Our fumet' });
  expect(of('goes in')).toEqual({
    what: 'goes in',
    was: (fumet.accepts[0] ?? '').replaceAll('-', ' '),
    is: fumet.accepts.includes('flatfish-fringe') ? '' : 'flatfish fringe',
  });
  expect(of(first.name)?.is).toMatch(/^750 g /);
  expect(of(`allergens of ${first.name}`)).toMatchObject({ was: '', is: 'celery' });
  expect(of('fennel')).toEqual({ what: 'fennel', was: '', is: '50 g (50 g to 50 g)' });
  expect(of(`step ${fumet.steps.length}`)?.is).toBe('');
  expect(of('gives')?.is).toMatch(/^0.7 l/);
});
