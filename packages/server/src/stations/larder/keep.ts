import { frozenDays, openedByPractice, speciesById, THAWED_DAYS } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import { changeKeeping, formatMass, type Keeping, type KeepingChange, type KeepingRules } from '@zabrik/core';
import { foodOfLot } from '../../db/foods.ts';
import { dayIn, placeNamed, placesOf, readHouse } from '../../db/house.ts';
import { limitsOf, readLimitChoice, shelfLifeOf } from '../../db/limits.ts';
import type { HouseRow } from '../../db/models/house.ts';
import { type LotRow, LotTable } from '../../db/models/lot.ts';
import { type LotEventRow, LotEventTable } from '../../db/models/lotEvent.ts';
import { readSpecies } from '../../db/plans.ts';
import { rowsOf } from '../../db/rows.ts';
import { selectOne } from '../../db/select.ts';
import { Problem } from '../../http/problem.ts';
import { mindConfirmations } from '../../massledger/confirmations.ts';
import { holdDescendants, letDescendantsGo } from '../../massledger/holds.ts';
import { type HeldLot, keepingOf, lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import type { InCommand, Services } from '../../services.ts';
import { splitLot } from './splitLot.ts';
import { eventWords, refusals } from './words.ts';

type Body = Asked<typeof api.larder.keep>['body'];

/** What of a lot these changes change. */
const columns: ReadonlySet<string> = new Set([
  'placeId',
  'state',
  'useBy',
  'frozenOn',
  'thawedOn',
  'openedOn',
  'daysLeft',
  'dateBasis',
  'dateLimit',
  'dateMaxC',
  'reservedFor',
  'held',
  'labels',
] satisfies (keyof LotRow)[]);

type State = Readonly<Record<string, string | number | boolean | null>>;

const stateOf = (lot: HeldLot): State => ({
  ...keepingOf(lot),
  dateBasis: lot.dateBasis,
  dateLimit: lot.dateLimit,
  dateMaxC: lot.dateMaxC,
  reservedFor: lot.reservedFor,
  held: lot.held,
});

/** Only what is different. */
const changesOf = (before: State, after: State): { before: State; after: State } => {
  const keys = Object.keys(after).filter((k) => columns.has(k) && after[k] !== before[k]);
  const of = (s: State): State => Object.fromEntries(keys.map((k) => [k, s[k] ?? null]));
  return { before: of(before), after: of(after) };
};

async function writeState(services: Services, command: InCommand, lotId: string, state: State): Promise<void> {
  const to: Partial<LotRow> = Object.fromEntries(Object.entries(state).filter(([k]) => columns.has(k)));
  if (Object.keys(to).length === 0) return;
  // a hold of its own, or none: no longer for another's sake
  await rowsOf(services.db, LotTable, command).change({ id: lotId }, 'held' in state ? { ...to, heldFrom: null } : to);
}

export async function writeEvent(
  services: Services,
  command: InCommand,
  lotId: string,
  event: Pick<LotEventRow, 'kind' | 'before' | 'after' | 'note'> & { readonly undoes?: string },
): Promise<string> {
  const id = command.newId();
  const { personId } = command.actor;
  await rowsOf(services.db, LotEventTable, command).add({ id, lotId, ...event, personId, at: command.at });
  return id;
}

const basisOf = (kind: Body['kind'], kept: Keeping, rules: KeepingRules, note: string | null): string | null => {
  switch (kind) {
    case 'freeze':
      return `${rules.frozenDays} days frozen, of quality; ${kept.daysLeft === null ? 'no date' : `${kept.daysLeft} ${kept.daysLeft === 1 ? 'day' : 'days'} left`} when it was frozen`;
    case 'thaw':
      return 'thawed: no more days than it had when it was frozen';
    case 'open':
      return `opened: ${rules.opened.value.max_days} days by ${rules.opened.citation.document} ${rules.opened.citation.section}`.trim();
    case 'date':
      return `set by hand: ${note ?? ''}`;
    default:
      return null;
  }
};

async function rulesFor(services: Services, command: InCommand, house: HouseRow, lot: HeldLot): Promise<KeepingRules> {
  const limits = limitsOf(await readLimitChoice(services.db, house.id, house.timezone, command.transaction));
  const category = lot.category ?? (lot.species === null ? null : categoryOfSpecies(lot.species));
  const animals = await readSpecies(services.db, house.id, command.transaction);
  const opened = shelfLifeOf(limits, 'opened', foodOfLot(lot, animals));
  const line = await selectOne<{ came: string | null }>(
    services.db,
    `select details ->> 'came' as came from delivery_line where lot_id = $1`,
    [lot.id],
    command.transaction,
  );
  const came = line === undefined ? undefined : (line.came ?? 'fresh');
  return {
    frozenDays: frozenDays(category),
    thawedDays: THAWED_DAYS,
    opened: opened ?? openedByPractice(lot.ready),
    needsCold: placeNamed(house, lot.placeId).kind !== 'ambient',
    // what the house packed itself it knows
    sealedFish: came !== undefined && came !== 'fresh' && !lot.ready && foodOfLot(lot, animals) === 'fish',
  };
}

/** A whole animal keeps in the freezer as its meat does. */
const categoryOfSpecies = (species: string): string => {
  const group = speciesById.get(species)?.group ?? '';
  if (group.includes('fish') || group === 'large-pelagic') return 'white-fish-portion';
  if (group === 'crustacean') return 'crustacean-meat';
  if (group === 'mollusc') return 'bivalve-meat';
  return group === 'poultry' ? 'poultry-portion' : 'venison-portion';
};

/**
 * Changes how a lot is kept, or a part of it that becomes a lot of its own, and writes what it was before beside it.
 *
 * Errors  `cannot_keep` with the reason; `needs_confirmation` with what to read first; `on_hold`; `not_enough`; `not_your_role` where only a
 * chef may (a later date, letting a held lot go).
 */
export async function keep(
  services: Services,
  command: InCommand,
  { params, body }: Asked<typeof api.larder.keep>,
): Promise<Answer<typeof api.larder.keep>> {
  const { db } = services;
  const { actor, at, transaction } = command;
  const [whole] = await lockLots(db, transaction, actor.houseId, [params.lotId]);
  if (whole === undefined) throw new Problem('not_found');
  // what was cut up can still be held back: what was made of it is
  if (whole.massMg === 0 && body.kind !== 'hold') throw new Problem('lot_gone', `Lot ${whole.code} is used up.`);
  const house = await readHouse(db, command);
  const today = dayIn(house.timezone, at);
  const placeName = (id: string): string => placesOf(house).find((p) => p.id === id)?.name ?? id;
  const chef = actor.role === 'head-chef' || actor.role === 'sous-chef';

  /** The lot itself, or the part of it that this is about, split off. */
  const partOf = async (massMg: number | null, pieces: number | null): Promise<HeldLot> => {
    if (massMg !== null && massMg > whole.massMg)
      throw new Problem('not_enough', `Lot ${whole.code} has ${formatMass(whole.massMg)}.`);
    if (massMg === null || massMg === whole.massMg) return whole;
    mustBeFree([whole]);
    const made = await splitLot(services, command, whole, massMg, pieces);
    const [taken] = await lockLots(db, transaction, actor.houseId, [made.lotId]);
    if (taken === undefined) throw new Error(`lot ${made.lotId} was split off and is not there`);
    return taken;
  };
  let lot = whole;
  let state: State;
  let note: string | null = null;
  switch (body.kind) {
    case 'reserve':
      lot = await partOf(body.massMg, body.pieces);
      state = { reservedFor: body.reservedFor };
      break;
    case 'hold':
      if (body.reason === null && !chef) throw new Problem('not_your_role', 'A chef lets a held lot go.');
      state = { held: body.reason };
      note = body.reason;
      break;
    case 'reading':
      state = { centiC: body.centiC };
      break;
    default: {
      const rules = await rulesFor(services, command, house, whole);
      const change: KeepingChange =
        body.kind === 'date'
          ? { kind: 'date', useBy: body.useBy }
          : body.kind === 'open'
            ? { kind: 'open' }
            : { kind: body.kind, to: placeNamed(house, body.placeId) };
      const kept = changeKeeping(keepingOf(whole), change, today, rules);
      if (typeof kept === 'string')
        throw new Problem('cannot_keep', `Lot ${whole.code}, ${whole.name}: ${refusals[kept]}`);
      if (kept.confirmations.includes('date-later') && !chef)
        throw new Problem('not_your_role', 'A chef makes a date later.');
      mindConfirmations(kept.confirmations, body.confirmed);
      note = body.kind === 'date' ? body.reason : body.note;
      if (body.kind !== 'date') lot = await partOf(body.massMg, null);
      const basis = basisOf(body.kind, kept.keeping, rules, note);
      // a date that another rule sets presumes that rule's cold, or none
      const dateLimit =
        kept.keeping.useBy === keepingOf(whole).useBy
          ? lot.dateLimit
          : body.kind === 'open'
            ? (rules.opened.id ?? null)
            : null;
      const dateMaxC =
        kept.keeping.useBy === keepingOf(whole).useBy
          ? lot.dateMaxC
          : body.kind === 'open'
            ? (rules.opened.value.at_max_C ?? null)
            : null;
      state = { ...kept.keeping, dateLimit, dateMaxC, ...(basis === null ? {} : { dateBasis: basis }) };
    }
  }
  const { before, after } = body.kind === 'reading' ? { before: {}, after: state } : changesOf(stateOf(lot), state);
  if (Object.keys(after).length === 0)
    throw new Problem('cannot_keep', `Lot ${lot.code}: ${refusals['already-there']}`);
  await writeState(services, command, lot.id, after);
  const along = 'held' in after ? await holdAlong(db, command, lot, after['held']) : '';
  const eventId = await writeEvent(services, command, lot.id, { kind: body.kind, before, after, note });
  return {
    lotId: lot.id,
    code: lot.code,
    eventId,
    useBy: (after['useBy'] as string | null | undefined) ?? lot.useBy,
    says: `${eventWords(body.kind, after, placeName)}${along}`,
  };
}

/** What was made of a lot is held back with it, and let go with it. Answers what to say of that. */
async function holdAlong(
  db: Services['db'],
  command: InCommand,
  lot: Pick<HeldLot, 'id' | 'code'>,
  held: State[string] | undefined,
): Promise<string> {
  const lots =
    typeof held === 'string' ? await holdDescendants(db, command, lot, held) : await letDescendantsGo(db, command, lot);
  return lots === 0 ? '' : `, and ${lots} ${lots === 1 ? 'lot' : 'lots'} made of it`;
}

/** Puts a lot back to how it was kept before an event, if nothing has changed it since. Errors: `not_found`, `changed_since`. */
export async function undoKeep(
  services: Services,
  command: InCommand,
  { params }: Asked<typeof api.larder.undoKeep>,
): Promise<Answer<typeof api.larder.undoKeep>> {
  const { db } = services;
  const { actor, transaction } = command;
  const event = await selectOne<{ lotId: string; kind: string; before: State; after: State; undone: boolean }>(
    db,
    `select lot_id as "lotId", kind, before, after, exists (select 1 from corrected c where c.house_id = e.house_id and c.id = e.id) as undone
     from lot_event e where id = $1 and house_id = $2 and kind not in ('undo', 'label')`,
    [params.eventId, actor.houseId],
    transaction,
  );
  if (event === undefined) throw new Problem('not_found');
  const [lot] = await lockLots(db, transaction, actor.houseId, [event.lotId]);
  if (lot === undefined) throw new Problem('not_found');
  const now = stateOf(lot);
  const same = Object.entries(event.after).every(([k, v]) => !columns.has(k) || now[k] === v);
  if (event.undone || !same)
    throw new Problem('changed_since', `Lot ${lot.code} was changed again since. Undo that first.`);
  if (event.kind === 'hold' && event.before['held'] === null && actor.role === 'butcher')
    throw new Problem('not_your_role', 'A chef lets a held lot go.');
  const [was, is] = [event.before['useBy'], event.after['useBy']];
  if (
    event.kind === 'date' &&
    actor.role === 'butcher' &&
    is !== undefined &&
    is !== null &&
    (was === null || was === undefined || was > is)
  )
    throw new Problem('not_your_role', 'A chef makes a date later.');
  await writeState(services, command, lot.id, event.before);
  if ('held' in event.before) await holdAlong(db, command, lot, event.before['held']);
  await writeEvent(services, command, lot.id, {
    kind: 'undo',
    before: event.after,
    after: event.before,
    note: null,
    undoes: params.eventId,
  });
  return { lotId: lot.id, useBy: (event.before['useBy'] as string | null | undefined) ?? lot.useBy };
}
