import { describe, expect, it } from 'vitest';
import { eachAfterItsOwn } from './eachAfterItsOwn.ts';

const table = (name: string, after?: string) => ({ name, order: 'id', drop: [], after });
const names = (...of: Parameters<typeof eachAfterItsOwn>): string[] => eachAfterItsOwn(...of).map((t) => t.name);

describe('tables of a house file', () => {
  it('come after what they point at, through however many, and else as they were given', () => {
    const points = [
      { table: 'line', at: 'movement' },
      { table: 'movement', at: 'person' },
      { table: 'movement', at: 'movement' },
      { table: 'person', at: 'house' },
    ];
    expect(names([table('line'), table('kept'), table('movement'), table('person')], points)).toEqual([
      'kept',
      'person',
      'movement',
      'line',
    ]);
  });

  it('come after what they lean on though they do not point there', () => {
    expect(names([table('reserved', 'line'), table('line')], [])).toEqual(['line', 'reserved']);
  });

  it('that wait for each other are named', () => {
    const ring = [
      { table: 'a', at: 'b' },
      { table: 'b', at: 'a' },
    ];
    expect(() => names([table('a'), table('b'), table('c')], ring)).toThrow('in a ring: a, b');
  });
});
