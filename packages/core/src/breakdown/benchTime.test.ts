import { describe, expect, it } from 'vitest';
import { workCost, workedByPerson, workedMinutes } from './benchTime.ts';

const at = (clock: string): Date => new Date(`2026-11-30T${clock}:00Z`);
const marks = [
  { kind: 'pause', at: at('09:20') },
  { kind: 'resume', at: at('09:40') },
] as const;

describe('what an hour of somebody cost', () => {
  // Ines 09:00 to 09:30, with ten minutes of the pause; Jory to 10:00, with the other ten
  const hands = [
    { personId: 'jory', from: at('09:30') },
    { personId: 'ines', from: at('09:00') },
  ];

  it('is counted by who had it in hand, and adds up to what was worked', () => {
    const minutes = workedByPerson(at('10:00'), marks, hands);
    expect([...minutes]).toEqual([
      ['ines', 20],
      ['jory', 20],
    ]);
    expect(20 + 20).toBe(workedMinutes(at('09:00'), at('10:00'), marks));
  });

  it('by hand: 20 minutes at 18.00 and 20 at 12.00 are 10.00', () => {
    const rates: Readonly<Record<string, number>> = { ines: 1_800, jory: 1_200 };
    expect(workCost(workedByPerson(at('10:00'), marks, hands), (id) => rates[id])).toBe(1_000);
  });

  it('is not known where one of them costs nobody knows what, unless they did not work', () => {
    const ofInes = (id: string) => (id === 'ines' ? 1_800 : undefined);
    expect(workCost(workedByPerson(at('10:00'), marks, hands), ofInes)).toBeUndefined();
    // closed at the moment it was handed over
    expect(workCost(workedByPerson(at('09:30'), marks, hands), ofInes)).toBe(600);
  });

  it('of somebody who had it twice is both together, and nothing after the end counts', () => {
    const thrice = [...hands, { personId: 'ines', from: at('09:50') }, { personId: 'jory', from: at('11:00') }];
    expect([...workedByPerson(at('10:00'), marks, thrice)]).toEqual([
      ['ines', 30],
      ['jory', 10],
    ]);
  });
});
