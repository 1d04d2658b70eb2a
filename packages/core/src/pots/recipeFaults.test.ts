import { expect, it } from 'vitest';
import type { Recipe } from './recipe.ts';
import { recipeFaults } from './recipeFaults.ts';

const known = {
  goods: new Set(['leek']),
  categories: new Set(['lamb-bone', 'lamb-trim', 'fish-gills']),
  never: new Set(['fish-gills']),
  recipes: new Set(['gravy', 'lamb-stock']),
};
const gravy: Recipe = {
  id: 'gravy',
  version: 1,
  kind: 'pan-sauce',
  title: 'Gravy',
  baseName: 'stock',
  accepts: ['lamb-bone'],
  acceptsUses: ['lamb-stock'],
  takes: 'any',
  trays: ['stock'],
  refuses: [],
  caps: [{ category: 'lamb-bone', maxShare: 0.5, reason: 'It gets gluey' }],
  ingredients: [{ id: 'flour', name: 'flour', perBase: 0.03, low: 0.02, high: 0.04, allergens: ['gluten/wheat'] }],
  questions: [
    {
      id: 'roux',
      question: 'Which roux',
      ways: [
        { id: 'blond', name: 'Blond', gives: 'Binds more.', perBase: { flour: 0.025 } },
        { id: 'brown', name: 'Brown', gives: 'Tastes more.' },
      ],
    },
  ],
  output: { name: 'gravy', low: 0.7, mean: 0.8, high: 0.9, measure: 'litres' },
  ready: true,
  marks: [],
  vessel: 'pan',
  minutes: { low: 10, typical: 20, high: 30 },
  steps: [{ kind: 'cook', text: 'Cook it.', ways: ['brown'] }],
  cautions: [],
  keeps: [],
  shelfLifeDays: 2,
  allergens: [],
  provenance: 'estimate',
  source: 'this test',
};
const faults = (change: Partial<Recipe>): string[] =>
  recipeFaults({ ...gravy, ...change }, known).map((f) => `${f.path}: ${f.message}`);
const [flour] = gravy.ingredients;
const [question] = gravy.questions;
if (flour === undefined || question === undefined) throw new Error('no gravy');

it('a sound recipe has none', () => expect(faults({})).toEqual([]));

it.each<[string, Partial<Recipe>, RegExp]>([
  ['no name', { title: ' ' }, /^title: A recipe has a name/],
  ['no base', { baseName: '' }, /^baseName: Say what/],
  ['nothing goes in', { accepts: [], acceptsUses: [], caps: [] }, /^accepts: Nothing goes in yet/],
  ['an unknown kind', { accepts: ['lamb-bone', 'gold'] }, /^accepts: There is no kind of piece gold/],
  ['gills', { accepts: ['lamb-bone', 'fish-gills'] }, /^accepts: fish gills goes in nothing/],
  ['itself', { acceptsUses: ['gravy'] }, /^acceptsUses: It cannot be made of itself/],
  ['an unknown recipe', { acceptsUses: ['soup'] }, /^acceptsUses: There is no recipe soup/],
  ['both ways', { refuses: [{ category: 'lamb-bone', reason: 'No' }] }, /^refuses.0: lamb bone goes in and is refused/],
  ['no reason', { refuses: [{ category: 'lamb-trim', reason: ' ' }] }, /^refuses.0: What is refused has a reason/],
  [
    'a cap of nothing',
    { caps: [{ category: 'lamb-trim', maxShare: 0.2, reason: 'So' }] },
    /^caps.0: lamb trim is held/,
  ],
  ['the same twice', { ingredients: [flour, flour] }, /^ingredients: Two ingredients are called flour/],
  ['a range inside out', { ingredients: [{ ...flour, low: 0.05 }] }, /^ingredients.0.low: flour: from, usual, to/],
  ['unsaid', { ingredients: [{ ...flour, unsaid: true }] }, /^ingredients.0.allergens: Nobody has said/],
  ['an ingredient of nothing', { ingredients: [{ ...flour, accepts: ['gold'] }] }, /^ingredients.0.accepts/],
  ['one way', { questions: [{ ...question, ways: question.ways.slice(1) }] }, /^questions.0: Where cooks disagree/],
  [
    'a way of what is not there',
    { ingredients: [{ ...flour, id: 'starch' }] },
    /^questions.0.ways.0: Blond changes flour, which is no ingredient/,
  ],
  ['a yield inside out', { output: { ...gravy.output, high: 0.1 } }, /^output: What it gives/],
  ['a silent step', { steps: [{ kind: 'cook', text: '' }] }, /^steps.0: Step 1 says nothing/],
  ['a step of no way', { steps: [{ kind: 'cook', text: 'Cook.', ways: ['white'] }] }, /^steps.0: Step 1 is of a way/],
  [
    'degrees inside out',
    { steps: [{ kind: 'cook', text: 'Cook.', tempC: { low: 90, high: 80 } }] },
    /^steps.0: Step 1: degrees/,
  ],
])('%s is said', (_, change, words) => {
  expect(faults(change).join('\n')).toMatch(words);
});
