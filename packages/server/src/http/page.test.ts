import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isSameOrigin } from '../access/sameOrigin.ts';
import { dayIn, lastDayAfter } from '../db/house.ts';
import { cursorOf, pageOf, readCursor } from './page.ts';
import { Problem } from './problem.ts';

describe('a place in a list', () => {
  it('reads back what it wrote', () => {
    fc.assert(
      fc.property(
        fc.date({ noInvalidDate: true, min: new Date(0), max: new Date('2100-01-01') }),
        fc.uuid(),
        (date, id) => {
          const place = { at: date.toISOString(), id };
          expect(readCursor(cursorOf(place))).toEqual(place);
        },
      ),
    );
  });

  it('refuses anything it did not write', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => {
        expect(() => readCursor(text)).toThrow(Problem);
      }),
    );
    expect(readCursor(undefined)).toBeUndefined();
  });

  it('says where the next page starts only when there is one', () => {
    const rows = [1, 2, 3].map((n) => ({ at: `2026-11-0${n}`, id: '019a0000-0000-7000-8000-00000000000a' }));
    expect(pageOf(rows, 3, (r) => r)).toMatchObject({ rows, next: null });
    const page = pageOf(rows, 2, (r) => r);
    expect(page.rows).toHaveLength(2);
    expect(readCursor(page.next ?? undefined)).toEqual(rows[1]);
  });
});

describe('the house’s own day', () => {
  it('turns at its own midnight, also when the clocks change', () => {
    expect(dayIn('Europe/London', new Date('2026-11-24T23:59:59Z'))).toBe('2026-11-24');
    expect(dayIn('Europe/London', new Date('2026-06-24T23:30:00Z'))).toBe('2026-06-25');
    expect(dayIn('Pacific/Auckland', new Date('2026-11-24T12:00:00Z'))).toBe('2026-11-25');
    expect(dayIn('America/New_York', new Date('2026-11-01T05:30:00Z'))).toBe('2026-11-01');
  });

  it('gives a use-by that never outlives what it was made of', () => {
    const at = new Date('2026-11-24T10:00:00Z');
    expect(lastDayAfter('Europe/London', at, 48, null)).toBe('2026-11-26');
    expect(lastDayAfter('Europe/London', at, 48, '2026-11-25')).toBe('2026-11-25');
    expect(lastDayAfter('Europe/London', at, 24, '2026-12-25')).toBe('2026-11-25');
  });
});

describe('the page a command comes from', () => {
  const from = (headers: Record<string, string>, method = 'POST') =>
    isSameOrigin({ method, headers: { host: 'kitchen.local:4180', ...headers } });

  it.each([
    ['its own', { origin: 'http://kitchen.local:4180' }, true],
    ['its own, by the browser’s word alone', { 'sec-fetch-site': 'same-origin' }, true],
    ['another port', { origin: 'http://kitchen.local:9999' }, false],
    ['another host', { origin: 'http://elsewhere.invalid' }, false],
    ['a sandbox', { origin: 'null' }, false],
    ['another site, by the browser’s word', { 'sec-fetch-site': 'cross-site' }, false],
    ['nowhere', {}, false],
  ] as const)('%s: %j is %s', (_name, headers, fine) => {
    expect(from(headers)).toBe(fine);
  });

  it('does not matter for reading', () => {
    expect(from({ origin: 'http://elsewhere.invalid' }, 'GET')).toBe(true);
  });
});
