/** Bought hake fillets cut to weight on four days before today: what the house's own form and its usual sizes are learnt from. */
import { templateById } from '@zabrik/catalogue/portioning';
import { acceptBody, api } from '@zabrik/contract';
import {
  type CuttingEventBody,
  fitProfile,
  massBetween,
  type PieceTemplate,
  type PortionsSetup,
  planCuts,
  usualLength,
} from '@zabrik/core';
import { seededRandom } from '@zabrik/core/simulator';
import { v7 as uuidv7 } from 'uuid';
import { closeCutting, recordCut, startCutting } from '../stations/bench/cutting/service.ts';
import { acceptDelivery } from '../stations/receive/service.ts';
import type { Replay } from './replay.ts';

const DAY = 24 * 3_600_000;
const none = { params: undefined, query: undefined } as const;

const setup: PortionsSetup = {
  kind: 'portions',
  templateId: 'fillet-round',
  sizes: [{ id: 'main', name: 'main course', targetMg: 160_000, toleranceShare: 0.05, valueMinor: 780, from: [] }],
  angleDeg: 0,
  squareMm: [0, 0],
  kerfMm: 0,
  clingMg: 0,
  tail: 'end',
  endMinorPerKg: 600,
  endTo: 'filling',
};

/** This quay's hake is fuller in the shoulder than the handbook thinks; each fish a little differently. */
const trueForm = (template: PieceTemplate, lean: number): PieceTemplate => ({
  ...template,
  thicknesses: template.thicknesses.map((t, i) => t * (1 + lean * (1 - (2 * i) / (template.thicknesses.length - 1)))),
});

export async function cutToWeightBefore(replay: Replay, now: Date): Promise<void> {
  const { services } = replay;
  const template = templateById.get(setup.templateId);
  if (template === undefined) throw new Error(`no form ${setup.templateId}`);
  for (const daysAgo of [9, 7, 5, 3]) {
    const random = seededRandom(`fillets ${daysAgo}`);
    const at = new Date(now.getTime() - daysAgo * DAY);
    const pieces = Array.from({ length: 2 }, () => 1_000 * random.whole(640, 900));
    const startMg = pieces.reduce((sum, mg) => sum + mg, 0);
    const line = await replay.do('Jory Pellam', at, api.receive.accept.id, (command) =>
      acceptDelivery(services, command, {
        ...none,
        body: acceptBody.parse({
          species: 'hake',
          form: 'fillet-skin-on',
          animals: pieces.length,
          supplierId: replay.supplier('Bram Quay Fish'),
          origin: 'Marrow Bay, day boat',
          grossMg: startMg,
          tareMg: 0,
          invoiceMg: startMg,
          paidMinor: Math.round((startMg * 2_150) / 1_000_000),
          temperatureCentiC: 120,
          landedOn: new Date(at.getTime() - DAY).toISOString().slice(0, 10),
          useBy: null,
          note: null,
        }),
      }),
    );
    if (line.lotId === null) throw new Error('the demo refuses nothing here');
    const cuttingId = uuidv7();
    const when = at.toISOString();
    const start = {
      id: cuttingId,
      kind: 'portions' as const,
      from: [{ lotId: line.lotId, massMg: null }],
      at: when,
      confirmed: false,
    };
    await replay.do('Jory Pellam', at, api.cutting.start.id, (command) =>
      startCutting(services, command, { ...none, body: start }),
    );
    const say = (body: CuttingEventBody): Promise<unknown> =>
      replay.do('Jory Pellam', at, api.cutting.event.id, (command) =>
        recordCut(services, command, {
          query: undefined,
          params: { cuttingId },
          body: { at: when, body: body as Parameters<typeof recordCut>[2]['body']['body'] },
        }),
      );
    await say({ kind: 'setup', setup });
    for (const [i, massMg] of pieces.entries()) {
      const measures = {
        massMg,
        lengthMm: 5 * Math.round((usualLength(template, massMg) * (1 + 0.04 * random.normal())) / 5),
      };
      const truth = fitProfile(trueForm(template, 0.14 + 0.03 * random.normal()), measures);
      const { kind: _, templateId: __, endTo, ...wish } = setup;
      await say({ kind: 'piece', no: i + 1, measures });
      const plan = planCuts(fitProfile(template, measures), wish);
      const common = { piece: i + 1, count: 1, replaces: null };
      let left = massMg;
      for (const p of plan.portions) {
        const got = 1_000 * Math.round(massBetween(truth, p.fromMm, p.toMm) / 1_000);
        left -= got;
        const { fromMm, toMm } = p;
        await say({
          kind: 'weigh',
          ...common,
          line: 'main',
          name: 'main course 160 g',
          destination: 'portion',
          massMg: got,
          predictedMg: Math.round(p.massMg),
          fromMm,
          toMm,
        });
      }
      if (left > 3_000)
        await say({
          kind: 'weigh',
          ...common,
          line: 'end',
          name: 'ends',
          destination: endTo,
          massMg: left - 1_000,
          predictedMg: null,
          fromMm: null,
          toMm: null,
        });
    }
    const made = await replay.do('Jory Pellam', at, api.cutting.close.id, (command) =>
      closeCutting(services, command, {
        query: undefined,
        params: { cuttingId },
        body: { leftMg: 0, left: null, unbalancedReason: null },
      }),
    );
    for (const lot of made.lots)
      await replay.takeOut(
        lot.lotId,
        lot.massMg,
        new Date(at.getTime() + DAY / 3),
        lot.destination === 'portion' ? 'served' : 'staff',
        null,
      );
  }
}
