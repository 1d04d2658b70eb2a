import { expect, it } from 'vitest';
import { house } from '../../testing/kitchen.ts';
import { devicesForm, newScale, settingsOf, typedOf } from './devicesForm.ts';
import { lastCheckWords, pointWords } from './scaleCheckWords.ts';

const floor = { ...newScale, name: 'Floor scale', address: ' 10.0.0.7:7002 ', intervalG: '20', maxKg: '150' };

it('what is typed of scales comes back as it was saved; a new one gets an id of its name, and no address where none stands', () => {
  const typed = typedOf(house);
  expect(typed).toMatchObject({ scales: [{ id: 'bench', address: '', intervalG: '1', maxKg: '15' }], probeAt: '' });
  const settings = settingsOf(devicesForm.parse({ ...typed, scales: [...typed.scales, floor], probeAt: 'probe:7003' }));
  expect(settings.scales).toEqual([
    ...house.scales,
    {
      id: 'floor-scale',
      name: 'Floor scale',
      accuracyClass: 'III',
      intervalMg: 20_000,
      maxMg: 150_000_000,
      address: '10.0.0.7:7002',
    },
  ]);
  expect(settings).toMatchObject({ probeAt: 'probe:7003', printerAt: null });
});

it('a new scale takes no name that is kept for practice; minutes of a tablet are whole and within a shift', () => {
  const typed = typedOf(house);
  const named = settingsOf(devicesForm.parse({ ...typed, scales: [...typed.scales, { ...floor, name: 'Practice' }] }));
  expect(named.scales.at(-1)?.id).toBe('practice-2');
  const minutes = (butcher: string) =>
    devicesForm.safeParse({ ...typed, idleMinutes: { ...typed.idleMinutes, butcher } }).data?.idleMinutes.butcher;
  expect(['5', '840', '4', '841', '30.5', '', 'soon'].map(minutes)).toEqual([5, 840, ...Array(5).fill(undefined)]);
});

it('says what is wrong with a scale, and that a kitchen has one', () => {
  const wrong = (change: object) =>
    devicesForm.safeParse({ ...typedOf(house), scales: [{ ...floor, ...change }] }).error?.issues.map((i) => i.message);
  expect(wrong({ address: '8.8.8.8:53' })?.[0]).toContain('in the kitchen’s network');
  expect(wrong({ address: '10.0.0.7' })?.[0]).toContain('in the kitchen’s network');
  expect(wrong({ intervalG: 'fine' })).toContain('Grams, such as 1');
  expect(wrong({ intervalG: '20', maxKg: '1' })).toEqual(['It holds a hundred of its steps at least']);
  expect(wrong({ intervalG: '20', maxKg: '2' })).toBeUndefined();
  expect(devicesForm.safeParse({ ...typedOf(house), scales: [] }).success).toBe(false);
});

it('a check is told by its worst weight, never greener', () => {
  const check = {
    id: 'a',
    at: '2026-11-30T10:00:00.000Z',
    by: 'Ines Calloway',
    scale: 'bench',
    scaleName: 'Bench',
    accuracyClass: 'III',
    intervalMg: 1_000,
  } as const;
  const of = (...points: readonly (readonly [number, number])[]) =>
    lastCheckWords({
      ...check,
      points: points.map(([load, shown]) => ({ loadMg: load * 1_000, shownMg: shown * 1_000 })),
    });
  expect(lastCheckWords(undefined)).toBe('Never checked with weights.');
  expect(of([500, 500], [5_000, 5_001])).toBe(
    'Checked Mon 30 Nov by Ines Calloway: within what is allowed, up to 5,000 g.',
  );
  expect(of([500, 500])).toContain('not sure');
  expect(of([500, 500], [5_000, 5_003])).toContain('not sure');
  expect(of([500, 502], [5_000, 5_000])).toContain('outside what is allowed');
  const point = { loadMg: 500_000, shownMg: 498_000, errorMg: -2_000, allowedMg: 1_000 } as const;
  expect(pointWords({ ...point, verdict: 'outside' })).toBe('−2 g, 1 g allowed: outside');
  expect(pointWords({ ...point, errorMg: 1_000, verdict: 'unsure' })).toContain('+1 g, 1 g allowed: not sure');
  expect(pointWords({ ...point, errorMg: 0, verdict: 'within' })).toBe('no error shown, 1 g allowed: within');
});
