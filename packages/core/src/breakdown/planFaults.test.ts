import { describe, expect, it } from 'vitest';
import type { CutPlan, PlanPiece, PlanStage, Species } from './plan.ts';
import { planFaults } from './planFaults.ts';

const own = { provenance: 'estimate', source: 'invented for this test' } as const;
const piece = (id: string, mean: number, o: Partial<PlanPiece> = {}): PlanPiece => ({
  id,
  name: id,
  count: 1,
  category: 'trim',
  share: { mean, sd: 0.01, ...own },
  destination: 'portion',
  alternatives: [],
  refused: [],
  main: true,
  edible: true,
  ...o,
});
const stage = (id: string, pieces: readonly PlanPiece[], o: Partial<PlanStage> = {}): PlanStage => ({
  id,
  name: `stage ${id}`,
  minutes: { low: 1, typical: 2, high: 3 },
  drip: { mean: 0.02, sd: 0.01, ...own },
  steps: [{ title: 'all of it', orderMatters: false, pieces: pieces.map((p) => p.id) }],
  pieces,
  ...o,
});
const first = stage('a', [piece('loin', 0.6, { next: 'b' }), piece('bone', 0.38, { main: false })]);
const second = stage('b', [piece('steak', 0.9), piece('end', 0.08)]);
const sound: CutPlan = {
  id: 'loin',
  version: 1,
  title: 'Loin',
  body: 'loin',
  skill: 2,
  starts: [{ species: 'deer', forms: ['saddle'] }],
  tools: [],
  stages: [first, second],
};
const deer: Species = {
  id: 'deer',
  name: 'Deer',
  scientific: 'Capreolus capreolus',
  group: 'furred-game',
  allergen: 'none',
  forms: [{ id: 'saddle', name: 'saddle', purchase: true, whole: false }],
  yields: [],
  inspection: [],
};
const known = { species: new Map([['deer', deer]]), categories: new Set(['trim']) };
const faults = (plan: CutPlan) => planFaults(plan, known);
const withFirst = (o: Partial<PlanStage>): CutPlan => ({ ...sound, stages: [{ ...first, ...o }, second] });
const [loin, bone] = first.pieces;
if (loin === undefined || bone === undefined) throw new Error('two pieces');

describe('a plan', () => {
  it('that is sound has no fault', () => {
    expect(faults(sound)).toEqual([]);
  });

  it.each<[name: string, plan: CutPlan, path: string, says: string]>([
    [
      'an unknown animal',
      { ...sound, starts: [{ species: 'unicorn', forms: ['saddle'] }] },
      'starts.0.species',
      'no species unicorn',
    ],
    [
      'a form it is not sold in',
      { ...sound, starts: [{ species: 'deer', forms: ['fillet'] }] },
      'starts.0.forms',
      'does not come as fillet',
    ],
    ['two stages of one name', { ...sound, stages: [first, second, second] }, 'stages', 'Two stages are called b'],
    ['two pieces of one name', withFirst({ pieces: [loin, { ...bone, id: 'loin' }] }), 'stages.0.pieces', 'Two pieces'],
    [
      'shares over one',
      withFirst({ pieces: [loin, { ...bone, share: { ...bone.share, mean: 0.4 } }] }),
      'stages.0.pieces',
      '102.0 %',
    ],
    [
      'a stage nothing goes on to',
      withFirst({ pieces: [piece('loin', 0.6), bone] }),
      'stages.1',
      'Nothing goes on to stage b',
    ],
    [
      'a piece no step takes off',
      withFirst({ steps: [{ title: 'x', orderMatters: false, pieces: ['loin'] }] }),
      'stages.0.pieces.1',
      'No step takes off bone',
    ],
    [
      'a step that names what is not there',
      withFirst({
        steps: [
          ...first.steps,
          { title: 'late', orderMatters: true, pieces: [], guard: { warn: 'w', before: ['tail'] } },
        ],
      }),
      'stages.0.steps.1',
      'late names tail',
    ],
    [
      'an unknown kind',
      withFirst({ pieces: [loin, { ...bone, category: 'gold' }] }),
      'stages.0.pieces.1.category',
      'no kind of piece gold',
    ],
    [
      'a tray it goes to and is refused at',
      withFirst({
        pieces: [loin, { ...bone, alternatives: ['stock'], refused: [{ destination: 'stock', reason: 'r' }] }],
      }),
      'stages.0.pieces.1.refused',
      'goes to stock and is refused there',
    ],
    [
      'a piece that goes back',
      { ...sound, stages: [first, { ...second, pieces: [piece('steak', 0.9, { next: 'a' }), piece('end', 0.08)] }] },
      'stages.1.pieces.0.next',
      'only go on to a later stage',
    ],
    [
      'a filling for what never came out',
      withFirst({ fill: { piece: 'loin', low: 0.2, high: 0.3, bones: ['cage'] } }),
      'stages.0.fill',
      'cage',
    ],
    ['a filling for nothing', withFirst({ fill: { piece: 'pocket', low: 0.2, high: 0.3 } }), 'stages.0.fill', 'pocket'],
  ])('with %s says so where it is', (_name, plan, path, says) => {
    const found = faults(plan);
    expect(found.map((f) => f.path)).toContain(path);
    expect(found.find((f) => f.path === path)?.message).toContain(says);
  });

  it('takes parts at a later stage of its own, and its first start at the first', () => {
    const at = (i: 0 | 1, stage: string): string[] =>
      faults({
        ...sound,
        starts: [sound.starts[0], sound.starts[0]].map((s, n) => ({
          species: s?.species ?? '',
          forms: ['saddle'],
          ...(n === i ? { at: stage } : {}),
        })),
      }).map((f) => f.path);
    expect(at(1, 'b')).toEqual([]);
    expect(at(1, 'a')).toEqual(['starts.1.at']);
    expect(at(1, 'z')).toEqual(['starts.1.at']);
    expect(at(0, 'b')).toEqual(['starts.0.at']);
  });

  it('with several faults says them all', () => {
    const plan = withFirst({ pieces: [loin, { ...bone, category: 'gold', share: { ...bone.share, mean: 0.1 } }] });
    expect(faults(plan)).toHaveLength(2);
  });

  it('counts a piece that its first form does not have as no part of the whole', () => {
    const pieces = [loin, bone, piece('kidney', 0.05, { absentIn: ['saddle'] })];
    expect(
      faults(withFirst({ pieces, steps: [{ title: 'x', orderMatters: false, pieces: ['loin', 'bone', 'kidney'] }] })),
    ).toEqual([]);
  });
});
