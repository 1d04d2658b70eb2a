/** Cutting to weight: lots go under the knife, everything measured and weighed is written down, and at the end it becomes lots. */
import { categoryById } from '@zabrik/catalogue';
import { trimCategory } from '@zabrik/catalogue/portioning';
import type { Answer, Asked, api, CuttingHead } from '@zabrik/contract';
import {
  type CuttingLine,
  carryAllergens,
  cuttingLines,
  type Destination,
  formatMass,
  judgeCutting,
  type Keeping,
  mergeKeeping,
  minor,
  readCutting,
  shareOut,
} from '@zabrik/core';
import { dayIn, lastDayAfter, readHouse } from '../../../db/house.ts';
import { CuttingTable } from '../../../db/models/cutting.ts';
import { CuttingEventTable } from '../../../db/models/cuttingEvent.ts';
import { CuttingInputTable } from '../../../db/models/cuttingInput.ts';
import { rowsOf } from '../../../db/rows.ts';
import { Problem } from '../../../http/problem.ts';
import { mindDates } from '../../../massledger/confirmations.ts';
import { costOfPart, type HeldLot, keepingOf, lockLots, mustBeFree } from '../../../massledger/lockLots.ts';
import type { NewLot } from '../../../massledger/makeLots.ts';
import { release, reserve } from '../../../massledger/reserve.ts';
import { type SinkLine, transform } from '../../../massledger/transform.ts';
import type { InCommand, Services } from '../../../services.ts';
import { readCuttingHead, readOneCutting } from './queries.ts';

/**
 * Puts lots under the knife. Nothing moves in the ledger until the cutting closes; the mass is reserved.
 *
 * Errors  `lot_gone`, `on_hold`, `cannot_keep` (frozen), `not_enough`, naming the lot; `key_reused` when that id is another's.
 */
export async function startCutting(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.cutting.start>,
): Promise<CuttingHead> {
  const { db } = services;
  const { actor, transaction } = command;
  const wanted = new Map(body.from.map((f) => [f.lotId, f.massMg]));
  const lots = await lockLots(db, transaction, actor.houseId, [...wanted.keys()]);
  mustBeFree(lots);
  const house = await readHouse(db, command);
  mindDates(lots, dayIn(house.timezone, new Date(body.at)), body.confirmed);
  const taken = lots.map((lot) => {
    if (lot.massMg === 0) throw new Problem('lot_gone', `Lot ${lot.code} is used up.`);
    if (lot.state === 'frozen') throw new Problem('cannot_keep', `Lot ${lot.code} is frozen. Thaw it first.`);
    const massMg = wanted.get(lot.id) ?? lot.freeMg;
    if (massMg <= 0 || massMg > lot.freeMg)
      throw new Problem(
        'not_enough',
        `Lot ${lot.code} has ${formatMass(lot.freeMg)} left that is not on a bench or promised to a pot.`,
      );
    return { lot, massMg };
  });
  const { id, kind } = body;
  const cuttings = rowsOf(db, CuttingTable, command);
  if ((await cuttings.one({ id })) !== undefined) throw new Problem('key_reused');
  await cuttings.add({ id, kind, personId: actor.personId, startedAt: new Date(body.at) });
  const under = taken.map(({ lot, massMg }) => ({ lotId: lot.id, massMg }));
  await rowsOf(db, CuttingInputTable, command).addAll(under.map((u, position) => ({ cuttingId: id, position, ...u })));
  await reserve(db, command, { kind: 'cutting', id: body.id }, under);
  return readCuttingHead(db, actor.houseId, body.id, transaction);
}

/** Locks a cutting. Errors: `not_found`; `cutting_closed`. */
async function lockOpen({ db }: Services, command: InCommand, cuttingId: string, lock: 'update' | 'share') {
  const row = await rowsOf(db, CuttingTable, command).one({ id: cuttingId }, { lock });
  if (row === undefined) throw new Problem('not_found', 'There is no such cutting in this house.');
  if (row.state !== 'open') throw new Problem('cutting_closed');
}

/** Writes down one thing that happened on the board. A weight put right or taken back must be one of this cutting's that still counts. */
export async function recordCut(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.cutting.event>,
): Promise<Answer<typeof api.cutting.event>> {
  const { actor, commandId, transaction } = command;
  const gone = body.body.kind === 'back' ? body.body.eventId : body.body.kind === 'weigh' ? body.body.replaces : null;
  // two tablets that put the same weight right must not both be heard
  await lockOpen(services, command, params.cuttingId, gone === null ? 'share' : 'update');
  if (gone !== null) {
    const { weights } = readCutting(
      (await readOneCutting(services.db, actor.houseId, params.cuttingId, transaction)).events,
    );
    if (!weights.some((w) => w.id === gone)) throw new Problem('already_replaced');
  }
  await rowsOf(services.db, CuttingEventTable, command).add({
    id: commandId,
    cuttingId: params.cuttingId,
    body: body.body,
    personId: actor.personId,
    at: new Date(body.at),
  });
  return { id: commandId, at: body.at, by: actor.name, body: body.body };
}

/** What a line becomes: its name, its kind, and how it is kept. */
function lotOfLine(
  line: CuttingLine,
  kind: CuttingHead['kind'],
  base: HeldLot,
): { readonly name: string; readonly category: string | null; readonly kind: 'piece' | 'batch' } {
  return {
    name: `${base.name}, ${line.name}`.slice(0, 200),
    category: line.line === 'end' ? trimCategory(base.category) : base.category,
    kind: kind === 'mould' || base.kind === 'batch' ? 'batch' : 'piece',
  };
}

const sentenceFor = (verdict: 'short' | 'gain' | 'balanced', unaccountedMg: number, allowedMg: number): string =>
  verdict === 'gain'
    ? `What was weighed is ${formatMass(-unaccountedMg)} more than was put under the knife. A weight taken twice, or a tray not tared?`
    : `${formatMass(unaccountedMg)} is not accounted for; drip and scale explain ${formatMass(allowedMg)}. An end not weighed, or something put back?`;

interface UnderKnife {
  readonly lot: HeldLot;
  readonly massMg: number;
}

/**
 * How much of each lot goes back uncut. Of lots alike it stays in the last that still has so much, then in the one before it; of lots
 * unlike (a lining and a heart) nobody can tell but who weighed it.
 *
 * Errors  `invalid`: unlike lots and not said of each, more of a lot than lay there, or not together what is put back.
 */
function leftOfEach(
  under: readonly UnderKnife[],
  leftMg: number,
  said: Asked<typeof api.cutting.close>['body']['left'],
): (UnderKnife & { readonly leftMg: number })[] {
  const wrong = (message: string): Problem => new Problem('invalid', undefined, [{ path: 'left', message }]);
  if (said !== null) {
    const each = under.map((u) => ({ ...u, leftMg: said.find((l) => l.lotId === u.lot.id)?.massMg ?? 0 }));
    const over = each.find((u) => u.leftMg > u.massMg);
    if (over !== undefined)
      throw wrong(`Lot ${over.lot.code} had ${formatMass(over.massMg)}, not ${formatMass(over.leftMg)}`);
    if (each.reduce((sum, u) => sum + u.leftMg, 0) !== leftMg)
      throw wrong('what is left of each is not together what is left');
    return each;
  }
  const [first] = under;
  const alike = under.every((u) => u.lot.species === first?.lot.species && u.lot.category === first?.lot.category);
  if (!alike && leftMg > 0)
    throw wrong(`say what is left of each: ${under.map((u) => `${u.lot.name} ${u.lot.code}`).join(', ')}`);
  let back = leftMg;
  return [...under]
    .reverse()
    .map((u) => {
      const stays = Math.min(back, u.massMg);
      back -= stays;
      return { ...u, leftMg: stays };
    })
    .reverse();
}

/**
 * Closes a cutting: lots of each size and tray, ends as trim, what was not cut back where it came from, and the rest an honest loss.
 * The cost goes with the mass; what is thrown away carries none.
 *
 * Errors  `nothing_weighed`; `out_of_balance` unless a reason is given.
 */
export async function closeCutting(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.cutting.close>,
): Promise<Answer<typeof api.cutting.close>> {
  const { db } = services;
  const { actor, at, transaction } = command;
  await lockOpen(services, command, params.cuttingId, 'update');
  const house = await readHouse(db, command);
  const head = await readOneCutting(db, actor.houseId, params.cuttingId, transaction);
  const { weights, setup } = readCutting(head.events);
  if (weights.length === 0)
    throw new Problem('nothing_weighed', 'Nothing is weighed yet. Weigh a portion, or put it back uncut.');
  if (body.leftMg >= head.startMg) throw new Problem('not_enough', 'More is put back than was under the knife.');
  const clingMg = setup?.kind === 'portions' ? setup.clingMg : 0;
  const balance = judgeCutting(head.startMg, body.leftMg, weights, house.settings.scales, clingMg);
  if (balance.verdict !== 'balanced' && body.unbalancedReason === null)
    throw new Problem('out_of_balance', sentenceFor(balance.verdict, balance.unaccountedMg, balance.allowedMg));

  const held = await lockLots(
    db,
    transaction,
    actor.houseId,
    head.inputs.map((i) => i.lotId),
  );
  const [base] = held;
  if (base === undefined) throw new Error(`cutting ${params.cuttingId} has no lot`);
  const stays = leftOfEach(
    held.map((lot, i) => ({ lot, massMg: head.inputs[i]?.massMg ?? 0 })),
    body.leftMg,
    body.left,
  );
  const sources = stays
    .map(({ lot, massMg, leftMg }) => ({
      lot,
      massMg: massMg - leftMg,
      costMinor: costOfPart(lot, massMg - leftMg),
    }))
    .filter((s) => s.massMg > 0);
  const startMinor = sources.reduce((sum, s) => sum + s.costMinor, 0);
  const lines = cuttingLines(weights);
  const kept = lines.map((l) => (l.destination === 'waste' ? 0 : l.massMg));
  const amounts = shareOut(minor(startMinor), kept.some((mg) => mg > 0) ? kept : lines.map((l) => l.massMg));
  const merged = mergeKeeping(sources.map((s) => keepingOf(s.lot)) as [Keeping, ...Keeping[]]);
  const allergens = carryAllergens(...sources.map((s) => s.lot.allergens));
  const from = sources.map((s) => s.lot.code).join(', ');
  const makes: { readonly lot: NewLot & { readonly destination: Destination }; readonly costMinor: number }[] = [];
  const sinks: SinkLine[] = [];
  for (const [i, line] of lines.entries()) {
    const costMinor = amounts[i] ?? 0;
    if (line.destination === 'waste') {
      sinks.push({ sink: 'waste', reason: `cut/${line.line}`, massMg: line.massMg, costMinor });
      continue;
    }
    const { name, category, kind } = lotOfLine(line, head.kind, base);
    // never beyond the date of what it was cut from; trim has the shorter life of trim
    const hours = categoryById.get(category ?? '')?.useWithinHours ?? 48;
    const useBy = lastDayAfter(house.timezone, at, hours, merged.useBy);
    const lot = {
      id: command.newId(),
      kind,
      name,
      species: sources.every((s) => s.lot.species === base.species) ? base.species : null,
      form: null,
      category,
      destination: line.destination,
      pieces: line.count,
      madeMg: line.massMg,
      keeping: { ...merged, useBy: merged.useBy === null && kind === 'batch' ? null : useBy },
      dateBasis:
        useBy === merged.useBy
          ? `the date of ${from}`
          : `${hours} h, usual for ${categoryById.get(category ?? '')?.label ?? 'such pieces'}`,
      supplierId: sources.every((s) => s.lot.supplierId === base.supplierId) ? base.supplierId : null,
      breakdownId: base.breakdownId,
      pieceId: line.line,
      batchId: null,
      allergens,
    };
    makes.push({ lot, costMinor });
  }
  sinks.push({
    sink: 'loss',
    reason: balance.unaccountedMg >= 0 ? 'drip' : 'tolerance',
    massMg: balance.unaccountedMg,
    costMinor: 0,
  });
  const { movementId, codes } = await transform(db, command, {
    kind: 'cut',
    station: 'bench',
    note: body.unbalancedReason,
    holderId: params.cuttingId,
    outOf: sources,
    makes,
    sinks,
  });
  await rowsOf(db, CuttingTable, command).change(
    { id: params.cuttingId },
    { state: 'closed', closedAt: at, movementId, startMinor },
  );
  const made = makes.map(({ lot: { id, name, pieces, madeMg, destination } }) => ({
    lotId: id,
    code: codes.get(id) ?? '',
    name,
    pieces,
    massMg: madeMg,
    destination,
  }));
  return { movementId, unaccountedMg: balance.unaccountedMg, lots: made };
}

/** Puts everything back uncut. Errors: `has_weighings`. */
export async function cancelCutting(
  services: Services,
  command: InCommand,
  cuttingId: string,
): Promise<Answer<typeof api.cutting.cancel>> {
  const { actor, transaction } = command;
  await lockOpen(services, command, cuttingId, 'update');
  const { weights } = readCutting((await readOneCutting(services.db, actor.houseId, cuttingId, transaction)).events);
  if (weights.length > 0) throw new Problem('has_weighings', 'Portions are already weighed. Take them back first.');
  await release(services.db, command, cuttingId);
  await rowsOf(services.db, CuttingTable, command).change({ id: cuttingId }, { state: 'cancelled' });
  return { done: true };
}
