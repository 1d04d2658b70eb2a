import { expect, it } from 'vitest';
import { kilograms } from '../quantity/mass.ts';
import { standsAt } from './standsAt.ts';
import { litresAt } from './vessel.ts';

const shape = { kind: 'round', diameterMm: 260, heightMm: 230 } as const;
const burner = { watts: 3_500, efficiency: 0.85 };
const at = (minute: number): string => new Date(Date.UTC(2026, 10, 30, 17, minute)).toISOString();
const read = (minute: number, kg: number) => ({ at: at(minute), massMg: kilograms(kg) });
const pan = {
  shape,
  burner,
  readings: [read(0, 6), read(30, 4.5)],
  last: read(30, 4.5),
  mark: { targetMg: kilograms(2) },
  nowMs: Date.parse(at(40)),
};

it('what stands there is the last level less what boiled away since, and the minutes are to the mark', () => {
  const now = standsAt(pan);
  const rate = now.rate?.kgPerHour ?? 0;
  // by hand: the burner says 4.58 give or take 1.375, the two readings 3.00 give or take 0.51: seven eighths of the way to these
  expect(rate).toBeCloseTo(3.19, 2);
  expect(now.nowKg).toBeCloseTo(4.5 - rate / 6, 9);
  expect(now.left?.typical).toBeCloseTo((((now.nowKg ?? 0) - 2) / rate) * 60, 9);
  expect(now.there).toBe(false);
  expect(litresAt(shape, 50)).toBeGreaterThan(2);
});

// by hand: 6 l stand 113 mm high in a pan of 260: 0.0531 m² of top and 0.0923 of side give the room 120 W of 2,975; 2,855 W boil away 4.55 kg an hour
it('begins with what the burner has left after top and side of what stands there', () => {
  const now = standsAt({ ...pan, readings: [read(0, 6)], last: read(0, 6) });
  expect(now.rate?.kgPerHour).toBeCloseTo(4.554, 2);
});

it('once it should be there it says so, and never stands below nought', () => {
  const late = standsAt({ ...pan, nowMs: Date.parse(at(30)) + 40 * 3_600_000 });
  expect(late).toMatchObject({ nowKg: 0, there: true });
  expect(late.left?.typical).toBe(0);
  // at the line itself it is there
  expect(standsAt({ ...pan, burner: undefined, mark: { targetMg: kilograms(4.5) } }).there).toBe(true);
});

it('salt that gets too strong first is the end: 18 g at no more than 6 a litre stop it at 3', () => {
  const salted = standsAt({ ...pan, mark: { targetMg: kilograms(2), salt: { grams: 18, mostPerLitre: 6 } } });
  expect(salted).toMatchObject({ markKg: 2, stopKg: 3, endKg: 3 });
  expect(salted.left?.typical).toBeLessThan(standsAt(pan).left?.typical ?? 0);
});

it('without a reading nobody knows where it stands; without a burner how long; and a clock behind the reading takes nothing off', () => {
  expect(standsAt({ ...pan, readings: [], last: undefined })).toMatchObject({
    nowKg: undefined,
    left: undefined,
    there: false,
  });
  expect(standsAt({ ...pan, burner: undefined })).toMatchObject({ rate: undefined, nowKg: 4.5, left: undefined });
  expect(standsAt({ ...pan, nowMs: Date.parse(at(0)) }).nowKg).toBe(4.5);
});
