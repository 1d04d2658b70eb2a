import { describe, expect, it } from 'vitest';
import type { Recipe } from '../pots/recipe.ts';
import type { TracedMovement } from '../trace/lineage.ts';
import { potDue, tubContents } from './tub.ts';

const move = (n: number, ...postings: readonly (readonly [lot: string | null, mg: number])[]): TracedMovement => ({
  id: `m${n}`,
  kind: 'fill',
  at: `2026-11-24T${10 + n}:00:00.000Z`,
  postings: postings.map(([lotId, massMg]) => ({ lotId, sink: lotId === null ? 'waste' : null, reason: null, massMg })),
});
const kindOf = (lotId: string) => ({ a: 'frame', b: 'head', c: 'frame' })[lotId] ?? '';

describe('what a tub holds', () => {
  it('by kind, largest first, evenly less what was taken out', () => {
    const moves = [
      move(0, ['a', -600], ['tub', 600]),
      move(1, ['b', -300], ['tub', 300]),
      move(2, ['tub', -450], [null, 450]),
      move(3, ['c', -100], ['tub', 100]),
    ];
    expect(tubContents('tub', moves, kindOf)).toEqual([
      { kind: 'frame', massMg: 400 },
      { kind: 'head', massMg: 150 },
    ]);
    expect(tubContents('tub', [...moves, move(4, ['tub', -550], [null, 550])], kindOf)).toEqual([]);
  });

  it('of what was counted over, nobody knows the kind', () => {
    expect(tubContents('tub', [move(0, ['a', -600], ['tub', 600]), move(1, ['tub', 60], [null, -60])], kindOf)).toEqual(
      [
        { kind: 'frame', massMg: 600 },
        { kind: '', massMg: 60 },
      ],
    );
  });
});

describe('a stock-take with a tub in it', () => {
  it('puts nothing of a lot that was short into a tub that was over', () => {
    const round: TracedMovement = {
      ...move(1, ['b', -300], [null, 300], ['tub', 60], [null, -60]),
      kind: 'count',
    };
    expect(tubContents('tub', [move(0, ['a', -600], ['tub', 600]), round], kindOf)).toEqual([
      { kind: 'frame', massMg: 600 },
      { kind: '', massMg: 60 },
    ]);
  });
});

describe('enough for a pot', () => {
  const fumet = {
    accepts: ['frame', 'head'],
    caps: [{ category: 'head', maxShare: 0.2, reason: 'cloudy' }],
    litresPerKg: 2.5,
  } as unknown as Recipe;

  it('is half of the smallest vessel, filled as far as it may be', () => {
    const contents = [{ kind: 'frame', massMg: 1_790_000 }];
    expect(potDue(fumet, contents, [20, 12])).toEqual({ usableMg: 1_790_000, enoughMg: 1_800_000, due: false });
    expect(potDue(fumet, [{ kind: 'frame', massMg: 1_800_000 }], [12]).due).toBe(true);
  });

  it('is what a collection says, where there is no pot to work it out from', () => {
    const stems = { id: 's', title: 'Stems', accepts: ['stem'], refuses: [], caps: [], enoughMg: 150_000 };
    expect(potDue(stems, [{ kind: 'stem', massMg: 149_000 }], [12])).toMatchObject({ enoughMg: 150_000, due: false });
    expect(potDue(stems, [{ kind: 'stem', massMg: 150_000 }], []).due).toBe(true);
  });

  it('counts a capped kind only as far as the rest carries it, and what the recipe refuses not at all', () => {
    const contents = [
      { kind: 'head', massMg: 5_000_000 },
      { kind: 'frame', massMg: 1_200_000 },
      { kind: 'skin', massMg: 9_000_000 },
    ];
    expect(potDue(fumet, contents, [12]).usableMg).toBe(1_500_000);
  });
});
