import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../safety/judge.ts';
import {
  changeKeeping,
  type Keeping,
  type KeepingChange,
  type KeepingRules,
  mergeKeeping,
  type Place,
} from './keeping.ts';

const cold: Place = { id: 'cold', name: 'Cold room', kind: 'cold-room', holds: 'raw' };
const ready: Place = { id: 'ready', name: 'Ready fridge', kind: 'fridge', holds: 'ready' };
const freezer: Place = { id: 'freezer', name: 'Freezer', kind: 'freezer', holds: 'any' };
const shelf: Place = { id: 'dry', name: 'Dry store', kind: 'ambient', holds: 'any' };
const rules: KeepingRules = {
  frozenDays: 90,
  thawedDays: 2,
  opened: { value: { max_days: 2, day_of_opening_is: 1 as const }, citation: { document: 'practice', section: '' } },
  needsCold: true,
  sealedFish: false,
};
const bones: Keeping = {
  state: 'fresh',
  placeId: 'cold',
  ready: false,
  useBy: '2026-11-25',
  frozenOn: null,
  thawedOn: null,
  openedOn: null,
  daysLeft: null,
};
const today = '2026-11-24';
const done = (k: Keeping, change: KeepingChange, day = today) => {
  const kept = changeKeeping(k, change, day, rules);
  if (typeof kept === 'string') throw new Error(kept);
  return kept;
};

describe('what is asked before it is done', () => {
  const confirmations = (k: Keeping, change: KeepingChange, own: Partial<KeepingRules> = {}, day = today) => {
    const kept = changeKeeping(k, change, day, { ...rules, ...own });
    return typeof kept === 'string' ? kept : kept.confirmations;
  };
  const frozen = { ...bones, state: 'frozen' as const, frozenOn: today };

  it('what needs the cold is not set down in the dry store unasked; flour is', () => {
    expect(confirmations(bones, { kind: 'move', to: shelf })).toEqual(['out-of-the-cold']);
    expect(confirmations({ ...bones, ready: true }, { kind: 'move', to: shelf })).toEqual(['out-of-the-cold']);
    expect(confirmations(bones, { kind: 'move', to: shelf }, { needsCold: false })).toEqual([]);
    expect(confirmations(bones, { kind: 'move', to: ready })).toEqual(['raw-among-ready']);
  });

  it('a pack past its date, or a frozen one, is not opened unasked', () => {
    expect(confirmations(bones, { kind: 'open' }, {}, '2026-11-25')).toEqual([]);
    expect(confirmations(bones, { kind: 'open' }, {}, '2026-11-26')).toEqual(['past-date']);
    expect(confirmations(frozen, { kind: 'open' })).toEqual(['opened-frozen']);
    expect(confirmations({ ...bones, useBy: null }, { kind: 'open' }, {}, '2026-11-26')).toEqual([]);
  });

  it('fish is opened before it thaws (US Food Code 2022, 3-501.13(E)); once opened it is not asked again', () => {
    expect(confirmations(frozen, { kind: 'thaw', to: cold }, { sealedFish: true })).toEqual(['thaw-in-pack']);
    expect(confirmations({ ...frozen, openedOn: today }, { kind: 'thaw', to: cold }, { sealedFish: true })).toEqual([]);
    expect(confirmations(frozen, { kind: 'thaw', to: cold })).toEqual([]);
  });
});

describe('freezing and thawing', () => {
  const frozen = done(bones, { kind: 'freeze', to: freezer }).keeping;

  it('freezing gives the frozen date and remembers the days that were left', () => {
    expect(frozen).toMatchObject({
      state: 'frozen',
      placeId: 'freezer',
      daysLeft: 2,
      useBy: '2027-02-22',
      frozenOn: today,
    });
  });

  it('thawing gives back no more than was left, nor more than the rule', () => {
    expect(done(frozen, { kind: 'thaw', to: cold }, '2026-12-10').keeping).toMatchObject({
      state: 'thawed',
      useBy: '2026-12-11',
    });
    const long = done({ ...bones, useBy: '2026-12-04' }, { kind: 'freeze', to: freezer }).keeping;
    expect(done(long, { kind: 'thaw', to: cold }, '2026-12-10').keeping.useBy).toBe('2026-12-11');
    const lastDay = done({ ...bones, useBy: today }, { kind: 'freeze', to: freezer }).keeping;
    expect(done(lastDay, { kind: 'thaw', to: cold }, '2026-12-10').keeping.useBy).toBe('2026-12-10');
  });

  it('a lot past its frozen date stays past it when it is thawed', () => {
    expect(done(frozen, { kind: 'thaw', to: cold }, '2027-03-30').keeping.useBy).toBe('2027-02-22');
  });

  it('freezing again asks for a confirmation', () => {
    const thawed = done(frozen, { kind: 'thaw', to: cold }).keeping;
    expect(done(thawed, { kind: 'freeze', to: freezer }).confirmations).toEqual(['refreeze']);
  });

  it('refuses what makes no sense, by name', () => {
    expect(changeKeeping(frozen, { kind: 'freeze', to: freezer }, today, rules)).toBe('already-frozen');
    expect(changeKeeping(bones, { kind: 'thaw', to: cold }, today, rules)).toBe('not-frozen');
    expect(changeKeeping(bones, { kind: 'freeze', to: cold }, today, rules)).toBe('freezing-takes-a-freezer');
    expect(changeKeeping(bones, { kind: 'move', to: freezer }, today, rules)).toBe('freezing-takes-a-freezer');
    expect(changeKeeping(frozen, { kind: 'move', to: cold }, today, rules)).toBe('frozen-stays-frozen');
    expect(changeKeeping(frozen, { kind: 'thaw', to: shelf }, today, rules)).toBe('thawing-takes-a-chiller');
    expect(changeKeeping({ ...bones, useBy: '2026-11-23' }, { kind: 'freeze', to: freezer }, today, rules)).toBe(
      'past-date',
    );
    expect(changeKeeping(bones, { kind: 'move', to: cold }, today, rules)).toBe('already-there');
  });
});

describe('what someone has to have seen', () => {
  it('raw beside what is ready to eat, and the other way round', () => {
    expect(done(bones, { kind: 'move', to: ready }).confirmations).toEqual(['raw-among-ready']);
    expect(done({ ...bones, ready: true, placeId: 'ready' }, { kind: 'move', to: cold }).confirmations).toEqual([
      'ready-among-raw',
    ]);
  });

  it('a date set later, never one set earlier', () => {
    expect(done(bones, { kind: 'date', useBy: '2026-11-26' }).confirmations).toEqual(['date-later']);
    expect(done(bones, { kind: 'date', useBy: '2026-11-24' }).confirmations).toEqual([]);
  });
});

it('an opened pack keeps the shorter of its date and the house’s days from opening', () => {
  const opened = {
    id: 'x',
    topic: 'date-marking',
    product: 'opened',
    unit: null,
    citation: { document: 'd', section: 's' },
    force: 'code',
    provenance: 'estimate',
    certainty: 'high',
    caution: 'c',
    kind: 'shelf_life',
    value: { max_days: 7, day_of_opening_is: 1 },
  } as const;
  const pack = { ...bones, useBy: '2027-01-01' };
  const kept = changeKeeping(pack, { kind: 'open' }, today, { ...rules, opened });
  expect(kept).toMatchObject({ keeping: { openedOn: today, useBy: '2026-11-30' } });
  expect(changeKeeping({ ...bones, openedOn: today }, { kind: 'open' }, today, rules)).toBe('already-opened');
});

describe('any life of a lot', () => {
  const act = fc.record({
    what: fc.constantFrom('freeze', 'thaw', 'open', 'move'),
    wait: fc.nat(40),
    place: fc.constantFrom(cold, ready, freezer, shelf),
  });

  it('never has more days in the cold than it had at the start, whatever is frozen and thawed', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 25 }), fc.integer({ min: 0, max: 9 }), (acts, life) => {
        let k: Keeping = { ...bones, useBy: addDays(today, life) };
        let day = today;
        let usable = 0;
        for (const { what, wait, place } of acts) {
          for (let i = 0; i < wait; i += 1) {
            if (k.state !== 'frozen' && k.useBy !== null && k.useBy >= day) usable += 1;
            day = addDays(day, 1);
          }
          const before = k;
          const kept = changeKeeping(k, what === 'open' ? { kind: what } : { kind: what, to: place }, day, {
            ...rules,
            thawedDays: 30,
          });
          if (typeof kept === 'string') continue;
          k = kept.keeping;
          if (what !== 'freeze' && before.useBy !== null)
            expect((k.useBy ?? '9') <= before.useBy || what === 'thaw').toBe(true);
        }
        // the day of thawing counts even when it was frozen on its last day: one for each freezing
        expect(usable).toBeLessThanOrEqual(life + 1 + acts.filter((a) => a.what === 'freeze').length);
      }),
    );
  });

  it('put together, the oldest date wins, and thawed is thawed', () => {
    const dates = fc.option(fc.integer({ min: 0, max: 60 }).map((n) => addDays(today, n)));
    const keeping = fc.record({ useBy: dates, state: fc.constantFrom('fresh', 'frozen', 'thawed') });
    fc.assert(
      fc.property(fc.array(keeping, { minLength: 1, maxLength: 6 }), (list) => {
        const [first = bones, ...others] = list.map((o): Keeping => ({ ...bones, ...o }) as Keeping);
        const merged = mergeKeeping([first, ...others]);
        for (const k of [first, ...others]) {
          if (k.useBy !== null) expect(merged.useBy !== null && merged.useBy <= k.useBy).toBe(true);
          if (k.state === 'thawed') expect(merged.state).toBe('thawed');
        }
      }),
    );
  });
});

it('what is put together is ready to eat only when all of it was, and has the earliest of each date', () => {
  const made = (o: Partial<Keeping>): Keeping => ({ ...bones, ...o });
  expect(mergeKeeping([made({ ready: true }), made({ ready: false })]).ready).toBe(false);
  expect(mergeKeeping([made({ ready: false }), made({ ready: true })]).ready).toBe(false);
  expect(mergeKeeping([made({ ready: true }), made({ ready: true })]).ready).toBe(true);
  expect(
    mergeKeeping([
      made({ useBy: '2026-11-25', openedOn: '2026-11-22', daysLeft: 3 }),
      made({ useBy: '2026-11-24', openedOn: null, daysLeft: 2 }),
    ]),
  ).toMatchObject({ useBy: '2026-11-24', openedOn: '2026-11-22', daysLeft: 2 });
  expect(mergeKeeping([made({ state: 'frozen' }), made({ state: 'thawed', thawedOn: '2026-11-23' })])).toMatchObject({
    state: 'thawed',
    thawedOn: '2026-11-23',
  });
});
