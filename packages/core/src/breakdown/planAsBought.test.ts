import { describe, expect, it } from 'vitest';
import { Refusal } from '../refusal.ts';
import type { CutPlan, PlanPiece, Species } from './plan.ts';
import { planAsBought } from './planAsBought.ts';
import { isBoughtCooked, missingInputs } from './planQuestions.ts';

const share = (mean: number) => ({ mean, sd: mean / 10, provenance: 'estimate', source: 'this test' }) as const;
const piece = (id: string, count: number, mean: number, more: Partial<PlanPiece> = {}): PlanPiece => ({
  id,
  name: `${id}, in words`,
  count,
  category: 'oily-fish-portion',
  share: share(mean),
  destination: 'larder',
  alternatives: [],
  refused: [],
  main: false,
  edible: true,
  ...more,
});
const minutes = { low: 4, typical: 6, high: 10 };
const plan: CutPlan = {
  id: 'sides',
  version: 1,
  title: 'Sides, then a block and a roll',
  body: 'round-fish',
  skill: 1,
  starts: [
    { species: 'salmon', forms: ['gutted', 'headed'] },
    { species: 'salmon', forms: ['side', 'side-boned'], at: 'skin' },
  ],
  tools: [],
  stages: [
    {
      id: 'fillet',
      name: 'Sides',
      minutes,
      drip: share(0.02),
      steps: [
        { title: 'Head', orderMatters: true, guard: { warn: 'Head on.', before: ['head', 'side'] }, pieces: ['head'] },
        { title: 'Sides', orderMatters: false, pieces: ['side', 'belly'] },
      ],
      pieces: [
        piece('head', 1, 0.2, { absentIn: ['headed'] }),
        piece('side', 2, 0.68, { next: 'skin', yieldForm: 'side', units: ['first side', 'second side'] }),
        piece('belly', 2, 0.1, { next: 'roll' }),
      ],
    },
    {
      id: 'skin',
      name: 'Skin',
      minutes,
      rest: { lowMinutes: 60, typicalMinutes: 60, highMinutes: 60, note: 'cold' },
      drip: share(0.02),
      steps: [
        { title: 'Pin', orderMatters: true, guard: { warn: 'Pins in.', before: ['pin'] }, pieces: ['pin'] },
        {
          title: 'Skin',
          orderMatters: true,
          guard: { warn: 'Pins in.', before: ['pin', 'skin'] },
          pieces: ['skin', 'flesh'],
        },
      ],
      pieces: [
        piece('pin', 60, 0.02, { absentIn: ['side-boned'] }),
        piece('skin', 2, 0.08, { units: ['first skin', 'second skin'] }),
        piece('flesh', 2, 0.88, { next: 'roll' }),
      ],
    },
    {
      id: 'roll',
      name: 'Roll',
      minutes,
      waitsForAll: true,
      drip: share(0.02),
      steps: [{ title: 'Roll', orderMatters: false, pieces: ['roll'] }],
      pieces: [piece('roll', 1, 0.98)],
    },
  ],
};
const salmon: Species = {
  id: 'salmon',
  name: 'Salmon',
  scientific: 'Salmo salar',
  group: 'round-fish',
  allergen: 'fish',
  forms: [
    { id: 'whole', name: 'whole', purchase: false, whole: true },
    ...['gutted', 'headed', 'side', 'side-boned'].map((id) => ({ id, name: id, purchase: true, whole: false })),
    { id: 'smoked', name: 'hot smoked', purchase: true, whole: false, cooked: true as const },
  ],
  yields: [],
  inspection: [],
};
const sum = (stage: CutPlan['stages'][number] | undefined): number =>
  (stage?.pieces ?? []).reduce((total, p) => total + p.share.mean, stage?.drip.mean ?? 0);
const stages = (form: string) => planAsBought(plan, salmon, form).stages;

describe('a plan on what was bought', () => {
  it('is the plan as it is written for what it is written for', () => {
    expect(planAsBought(plan, salmon, 'gutted')).toEqual(plan);
  });

  it('begins where the form enters, with the counts and minutes of one of what came', () => {
    const [first, second, ...rest] = stages('side');
    expect([first?.id, second?.id, rest]).toEqual(['skin', 'roll', []]);
    expect(first?.pieces.map((p) => [p.id, p.count])).toEqual([
      ['pin', 30],
      ['skin', 1],
      ['flesh', 1],
    ]);
    // one skin has no need of a name that tells it from the other
    expect(first?.pieces[1]?.units).toBeUndefined();
    expect(first?.minutes).toEqual({ low: 2, typical: 3, high: 5 });
    // what was bought has not rested here
    expect(first?.rest).toBeUndefined();
    // one of a fish stays one of a side: half a roll is no roll
    expect(second?.pieces.map((p) => p.count)).toEqual([1]);
  });

  it('leaves out what the form arrives without, from the steps and the warnings too, and shares out the rest', () => {
    const [first] = stages('side-boned');
    expect(first?.pieces.map((p) => p.id)).toEqual(['skin', 'flesh']);
    expect(first?.pieces.map((p) => p.share.mean)[0]).toBeCloseTo(0.08 / 0.98, 9);
    expect(sum(first)).toBeCloseTo(1, 9);
    expect(first?.steps).toHaveLength(1);
    expect(first?.steps[0]?.guard?.before).toEqual(['skin']);
    const [headed] = stages('headed');
    expect(headed?.steps.map((s) => s.title)).toEqual(['Sides']);
    expect(sum(headed)).toBeCloseTo(1, 9);
    expect(headed?.pieces[0]?.units).toEqual(['first side', 'second side']);
  });

  it('refuses a form that it does not start from', () => {
    expect(() => stages('smoked')).toThrow(Refusal);
  });
});

it('a stage made of all that goes on to it says what is not there', () => {
  expect(missingInputs(plan, 'roll', ['flesh'])).toEqual(['belly']);
  expect(missingInputs(plan, 'roll', ['flesh', 'belly', null])).toEqual([]);
  expect(missingInputs(plan, 'skin', [])).toEqual([]);
  // bought as a side there is no belly to wait for
  expect(missingInputs(planAsBought(plan, salmon, 'side'), 'roll', ['flesh'])).toEqual([]);
});

it('what is bought cooked is known by its form', () => {
  expect(['smoked', 'cooked', 'side', null].map((form) => isBoughtCooked(salmon, form))).toEqual([
    true,
    true,
    false,
    false,
  ]);
});
