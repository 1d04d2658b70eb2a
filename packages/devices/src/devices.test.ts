import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PanPhysics } from './panPhysics.ts';
import { formatReading, parseReading, scaleStates } from './scaleLine.ts';

const settings = { intervalMg: 1_000, maxMg: 15_000_000, lagMs: 90, noiseMg: 1_500, restMs: 400 };

const pan = () => new PanPhysics(settings, () => 0.5);
const batch = (p: PanPhysics, ms: number) => {
  let reading = p.tick(0);
  for (let t = 0; t < ms; t += 20) reading = p.tick(20);
  return reading;
};

describe('the scale’s line', () => {
  it('reads back whatever it writes', () => {
    const whole = fc.integer({ min: -2e9, max: 2e9 });
    fc.assert(
      fc.property(
        fc.record({
          count: whole,
          state: fc.constantFrom(...scaleStates),
          grossMg: whole,
          tareMg: whole,
          netMg: whole,
          settled: whole,
          intervalMg: whole,
        }),
        (reading) => {
          expect(parseReading(formatReading(reading))).toEqual(reading);
        },
      ),
    );
  });

  it('ignores what it cannot read', () => {
    for (const line of [
      '',
      'reading',
      'reading n=1 state=steady gross=',
      'reading n=1 state=odd gross=1 tare=0 net=1 settled=1 e=1',
      'plate name=x',
      'reading n=x state=steady gross=1 tare=0 net=1 settled=1 e=1',
    ])
      expect(parseReading(line)).toBeUndefined();
  });
});

describe('the pan', () => {
  it('moves, then rests on the load to the interval, and counts each rest', () => {
    const p = pan();
    batch(p, 2_000);
    p.load(668_400);
    expect(p.tick(20).state).toBe('moving');
    expect(batch(p, 3_000)).toMatchObject({ state: 'steady', grossMg: 668_000, settled: 2 });
    p.load(668_400); // lifted and put back: a new weighing
    expect(batch(p, 3_000)).toMatchObject({ state: 'steady', settled: 3 });
  });

  it('tares at rest only, and shows the net after', () => {
    const p = pan();
    batch(p, 2_000);
    expect(p.tare()).toBe('nothing');
    p.load(412_000);
    p.tick(20);
    expect(p.tare()).toBe('moving');
    batch(p, 3_000);
    expect(p.tare()).toBe('done');
    p.load(1_080_000);
    expect(batch(p, 3_000)).toMatchObject({ netMg: 668_000, tareMg: 412_000 });
    p.untare();
    expect(batch(p, 100)).toMatchObject({ netMg: 1_080_000 });
  });

  it('sets zero within two per cent of its maximum, and says when it is over', () => {
    const p = pan();
    p.load(40_000);
    batch(p, 3_000);
    expect(p.zero()).toBe('done');
    expect(batch(p, 500).grossMg).toBe(0);
    p.load(900_000);
    batch(p, 3_000);
    expect(p.zero()).toBe('too-far');
    p.load(16_000_000);
    expect(batch(p, 3_000).state).toBe('over');
  });
});
