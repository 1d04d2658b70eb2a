import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { Refusal } from '../refusal.ts';
import { allergens, carryAllergens } from './allergens.ts';
import { parseGs1 } from './gs1.ts';
import { type LabelledLot, labelOf } from './label.ts';
import { type LabelWords, layLabel, type Measure, wrap } from './labelLayout.ts';
import { labelWords } from './labelWords.ts';

const lot: LabelledLot = {
  code: '0417-F',
  name: 'Hake, loin portions',
  massMg: 1_280_000,
  pieces: 8,
  madeOn: '2026-11-24',
  useBy: '2026-11-26',
  state: 'fresh',
  frozenOn: null,
  thawedOn: null,
  placeName: 'Cold room',
  ready: false,
  allergens: ['fish'],
  supplierName: 'Bram Quay Fish',
  origin: 'Marrow Bay, day boat, gill net',
};
const words: LabelWords = { ...labelWords(false), day: (d) => d };
const measure: Measure = (text, size, bold) => [...text].length * size * (bold ? 0.58 : 0.53);
const mm = 72 / 25.4;
const sizes = [
  [57, 32],
  [62, 40],
  [100, 50],
  [70, 36],
  [38.1, 21.2],
] as const;
/** Everything drawn, with broken words put together again. */
const drawn = (l: LabelledLot, [w, h]: readonly [number, number]) =>
  layLabel(labelOf(l, 'Ines Calloway', 0), w * mm, h * mm, words, measure)
    .lines.map((line) => line.text)
    .join(' ');

describe('a label', () => {
  it('says name, mass, dates, allergens and code, on every size we print', () => {
    for (const size of sizes) {
      const text = drawn({ ...lot, state: 'thawed', frozenOn: '2026-11-20', thawedOn: '2026-11-24' }, size);
      for (const what of [
        'Hake, loin',
        '1,280 g',
        '8 pieces',
        'made 2026-11-24',
        'frozen 2026-11-20',
        'thawed 2026-11-24',
        'USE BY 2026-11-26',
        'fish',
        '0417-F',
        'Cold room',
      ])
        expect(text, String(size)).toContain(what);
    }
  });

  it('stays inside its paper, and nothing stands on the square', () => {
    for (const [w, h] of sizes) {
      const { lines, square } = layLabel(labelOf(lot, 'Ines Calloway', 1), w * mm, h * mm, words, measure);
      for (const line of lines) {
        const right = line.x + measure(line.text, line.size, line.bold);
        expect(line.x).toBeGreaterThan(0);
        expect(right, line.text).toBeLessThanOrEqual(w * mm);
        expect(line.y).toBeLessThanOrEqual(h * mm);
        expect(
          right <= square.x || line.y - line.size >= square.y + square.side - 3 || line.text === lot.code,
          line.text,
        ).toBe(true);
      }
      expect(lines.some((l) => l.text.includes('REPRINT'))).toBe(true);
    }
  });

  it('has a code that scans back to the lot', () => {
    expect(parseGs1(labelOf(lot, 'x', 0).element, 2026).fields).toMatchObject([{ ai: '91', raw: '0417-F' }]);
  });

  const anyAllergens = fc.uniqueArray(
    fc.oneof(fc.constantFrom(...allergens.map((a) => a.id)), fc.stringMatching(/^[a-z]{2,16}( [a-z]{2,12})?$/)),
    { maxLength: 16 },
  );

  it('never loses an allergen: it stands there in full, or the label is refused', () => {
    fc.assert(
      fc.property(
        anyAllergens,
        fc.constantFrom(...sizes),
        fc.string({ minLength: 1, maxLength: 120 }),
        (has, size, name) => {
          let text: string;
          try {
            text = drawn({ ...lot, name, allergens: has }, size);
          } catch (error) {
            expect(error).toBeInstanceOf(Refusal);
            return;
          }
          for (const name of words.allergens(has)) expect(text).toContain(name);
          expect(words.allergens(has)).toHaveLength(has.length);
        },
      ),
    );
  });

  it('holds all fourteen on the smallest roll we print', () => {
    const all = allergens.map((a) => a.id);
    for (const a of allergens) expect(drawn({ ...lot, allergens: all }, [57, 32])).toContain(a.eu);
  });
});

describe('allergens carried', () => {
  it('are all of all sources, each once, the unknown ones too', () => {
    const list = fc.array(fc.oneof(fc.constantFrom(...allergens.map((a) => a.id)), fc.stringMatching(/^[a-z]{3,9}$/)), {
      maxLength: 6,
    });
    fc.assert(
      fc.property(fc.array(list, { maxLength: 5 }), (sources) => {
        const carried = carryAllergens(...sources);
        expect(new Set(carried)).toEqual(new Set(sources.flat()));
        expect(new Set(carried).size).toBe(carried.length);
        expect(carryAllergens(carried)).toEqual(carried);
      }),
    );
  });

  // Regulation (EU) 1169/2011, Annex II, and the US list of major allergens: from memory
  it('know the fourteen of Annex II and the nine of the US list', () => {
    expect(allergens).toHaveLength(14);
    expect(allergens.filter((a) => a.us !== null)).toHaveLength(9);
  });
});

describe('where the words of a label stand', () => {
  const laid = (l: LabelledLot, reprint = 0) => layLabel(labelOf(l, 'Ines', reprint), 62 * mm, 40 * mm, words, measure);

  it('each line a line below the one before, by its own size; the name largest but for the last day', () => {
    const { lines } = laid(lot);
    const body = lines.slice(0, -2);
    for (const [i, line] of body.entries()) {
      const above = body[i - 1];
      if (above !== undefined) expect(line.y - above.y).toBeCloseTo(line.size * 1.14, 6);
    }
    const mass = body.find((l) => l.text.startsWith('1,280 g'));
    expect((body[0]?.size ?? 0) / (mass?.size ?? 1)).toBeCloseTo(1.3, 6);
    const useBy = body.find((l) => l.text.includes('USE BY'));
    expect((useBy?.size ?? 0) / (mass?.size ?? 1)).toBeCloseTo(1.45, 6);
    expect([body[0]?.bold, mass?.bold, useBy?.bold]).toEqual([true, false, true]);
    expect(body.find((l) => l.text.toLowerCase().includes('fish'))?.bold).toBe(true);
  });

  it('says pieces where there are several, and that it is a reprint in bold where it is one', () => {
    expect(
      laid(lot)
        .lines.map((l) => l.text)
        .join(' '),
    ).toContain('1,280 g, 8 pieces');
    expect(
      laid({ ...lot, pieces: 1 })
        .lines.map((l) => l.text)
        .join(' '),
    ).not.toContain('pieces');
    const foot = (reprint: number) => laid(lot, reprint).lines.find((l) => l.text.startsWith('Ines'));
    expect([foot(0)?.bold, foot(1)?.bold]).toEqual([false, true]);
  });

  it('of a very long name two lines are left, and the second says that it goes on', () => {
    const long = {
      ...lot,
      name: 'Hake loin portions of the very long kind that no label of ours was ever wide enough for',
    };
    const [first, second, third] = laid(long).lines;
    expect([first?.size, second?.size]).toEqual([second?.size, first?.size]);
    expect(first?.text).not.toMatch(/…$/);
    expect(second?.text).toMatch(/[^ ]…$/);
    expect(third?.text).toMatch(/^1,280 g/);
    // two lines that hold it all do not say so
    const two = laid({ ...lot, name: 'Hake, loin portions, skin on' }).lines.filter(
      (l) => l.size === laid(lot).lines[0]?.size,
    );
    for (const line of two) expect(line.text).not.toMatch(/…$/);
  });

  it('breaks at words, a word that is wider alone within it, and loses no letter', () => {
    // 0.53 of the size a letter: ten letters of size 10 are 53 wide
    expect(wrap('one two three', 53, 10, false, measure)).toEqual(['one two', 'three']);
    expect(wrap('abcdefghijkl', 53, 10, false, measure)).toEqual(['abcdefghij', 'kl']);
    expect(wrap('', 53, 10, false, measure)).toEqual([]);
    expect(wrap('ten letter', 53, 10, false, measure)).toEqual(['ten letter']);
  });
});
