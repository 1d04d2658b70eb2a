import { planById, speciesById } from '@zabrik/catalogue';
import { kitchenHistory, seededRandom } from '@zabrik/core/simulator';
import type { Sequelize } from 'sequelize';
import { v7 as uuidv7 } from 'uuid';
import { hashSecret } from '../access/secrets.ts';
import { HouseTable } from '../db/models/house.ts';
import { PersonTable } from '../db/models/person.ts';
import { SupplierTable } from '../db/models/supplier.ts';
import { rowsOf, serverRows } from '../db/rows.ts';
import { select } from '../db/select.ts';
import type { Actor, Services } from '../services.ts';
import { cutToWeightBefore } from './cutDays.ts';
import { stockTheLarder } from './larderDay.ts';
import { potDay } from './potDay.ts';
import { type Cast, Replay } from './replay.ts';
import * as scenario from './scenario.ts';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

/** Makes a house with people and suppliers. Everyone gets the same PIN; the head chef has a password as well. */
export async function makeHouse(
  db: Sequelize,
  house: { readonly slug: string; readonly name: string; readonly currency: string; readonly timezone: string },
  pin: string,
): Promise<Cast> {
  const houseId = uuidv7();
  await serverRows(db, HouseTable).add({ id: houseId, ...house, settings: scenario.settings });
  const [pinHash, passwordHash] = await Promise.all([hashSecret(pin), hashSecret(`${house.slug}-office`)]);
  const people = new Map<string, Actor>();
  for (const { name, role } of scenario.people) {
    const id = uuidv7();
    await rowsOf(db, PersonTable, { houseId }).add({
      id,
      name,
      role,
      firstDayOverAt: new Date(),
      pinHash,
      passwordHash: role === 'head-chef' ? passwordHash : null,
    });
    people.set(name, { personId: id, houseId, name, role });
  }
  const suppliers = new Map<string, string>();
  for (const { name } of scenario.suppliers) {
    const id = uuidv7();
    await rowsOf(db, SupplierTable, { houseId }).add({ id, name });
    suppliers.set(name, id);
  }
  return { houseId, people, suppliers };
}

interface OnHand {
  readonly id: string;
  readonly destination: string;
  readonly category: string | null;
  readonly massMg: number;
}

const onHandWhere = (services: Services, what: string, of: unknown): Promise<OnHand[]> =>
  select<OnHand>(
    services.db,
    `select l.id, l.destination, l.category, b.mass_mg as "massMg" from lot l join lot_balance b on b.lot_id = l.id
     where ${what} and b.mass_mg > 0 order by l.serial`,
    [of],
  );
const onHandOf = (services: Services, breakdownId: string): Promise<OnHand[]> =>
  onHandWhere(services, 'l.breakdown_id = $1', breakdownId);
const stillOf = (services: Services, lots: readonly string[]): Promise<OnHand[]> =>
  onHandWhere(services, 'l.id = any($1::uuid[])', lots);

/** Bones that make a pot worth lighting. */
const A_POT = 2_800_000;

/**
 * What became of the pieces of one old breakdown: most served or eaten by the staff; fish bones are frozen until there are enough of
 * them for a fumet, every third time nobody got round to it and they were thrown away.
 */
async function eatUp(
  replay: Replay,
  breakdownId: string,
  closedAt: Date,
  turn: number,
  frozen: OnHand[],
): Promise<void> {
  const later = (hours: number): Date => new Date(closedAt.getTime() + hours * HOUR);
  for (const lot of await onHandOf(replay.services, breakdownId)) {
    const fish = lot.category?.includes('fish') === true;
    if (lot.destination === 'stock' && fish && turn % 3 !== 2) {
      await replay.freeze(lot.id, later(1));
      frozen.push(lot);
    } else if (lot.destination === 'stock')
      await replay.takeOut(lot.id, lot.massMg, later(26), 'waste', turn % 2 === 0 ? 'spoiled' : 'over-ordered');
    else if (lot.destination === 'filling' || lot.destination === 'staff')
      await replay.takeOut(lot.id, lot.massMg, later(20), 'staff', null);
    else await replay.takeOut(lot.id, lot.massMg, later(28), 'served', null);
  }
  if (frozen.reduce((sum, lot) => sum + lot.massMg, 0) < A_POT) return;
  const bones = frozen.splice(0).map((lot) => lot.id);
  const stock = await replay.batch('fish-fumet', bones, later(3), 0.86 + 0.01 * (turn % 9));
  // heads above a fifth, and bones too oily for it
  for (const lot of await stillOf(replay.services, bones))
    await replay.takeOut(lot.id, lot.massMg, later(26), 'waste', 'over-ordered');
  for (const made of stock === undefined ? [] : await stillOf(replay.services, [stock]))
    await replay.takeOut(made.id, made.massMg, later(40), 'served', null);
}

/** Hakes cut the day before yesterday, all but their bones eaten since. Gives their lots, largest first. */
async function bonesOfTwoDaysAgo(replay: Replay, now: Date): Promise<OnHand[]> {
  const ago = (hours: number): Date => new Date(now.getTime() - hours * HOUR);
  const bones: OnHand[] = [];
  for (const startMg of [3_240_000, 2_980_000]) {
    const lotId = await replay.receive(
      {
        speciesId: 'hake',
        form: 'gutted',
        supplierId: 'Outer Skerry Boats',
        cutterId: 'Jory Pellam',
        receivedAt: ago(48),
        startMg,
        invoiceMg: startMg,
        paidMinor: Math.round(startMg * 0.00108),
        temperatureCentiC: 110,
      },
      1,
    );
    const breakdown = await replay.start(lotId, 'round-fish-two-fillets', 'Jory Pellam', ago(46.5), 1, null);
    await replay.workStage(breakdown, 'Jory Pellam', ago(46.5), ago(46));
    await replay.close(breakdown, 'Jory Pellam', ago(45.9));
    for (const lot of await onHandOf(replay.services, breakdown))
      if (lot.destination === 'stock') bones.push(lot);
      else await replay.takeOut(lot.id, lot.massMg, ago(45), lot.destination === 'portion' ? 'served' : 'staff', null);
  }
  return bones.sort((a, b) => b.massMg - a.massMg);
}

/** What stands in the kitchen this morning: work done since yesterday, animals still whole, one fish half way on the bench. */
async function thisMorning(replay: Replay, now: Date): Promise<void> {
  const random = seededRandom('this morning');
  const ago = (hours: number): Date => new Date(now.getTime() - hours * HOUR);
  const done: readonly (readonly [
    species: string,
    supplier: string,
    cutter: string,
    hoursAgo: number,
    startG: number,
  ])[] = [
    ['hake', 'Bram Quay Fish', 'Ines Calloway', 21, 2_860],
    ['guinea-fowl', 'Hollin Farm Poultry', 'Ines Calloway', 20, 1_310],
    ['plaice', 'Outer Skerry Boats', 'Jory Pellam', 3.2, 1_300],
    ['hake', 'Outer Skerry Boats', 'Ines Calloway', 2.6, 3_120],
    ['gurnard', 'Bram Quay Fish', 'Jory Pellam', 1.8, 1_465],
  ];
  const item = (species: string): scenario.MenuItem => {
    const found = scenario.menu.find((m) => m.species === species);
    if (found === undefined) throw new Error(`${species} is not on the demo's menu`);
    return found;
  };
  const delivery = (
    species: string,
    supplier: string,
    cutter: string,
    at: Date,
    massMg: number,
    invoiceMg: number,
  ) => ({
    speciesId: species,
    form: item(species).form,
    supplierId: supplier,
    cutterId: cutter,
    receivedAt: at,
    startMg: massMg,
    invoiceMg,
    paidMinor: Math.round((invoiceMg * item(species).minorPerKg) / 1_000_000),
    temperatureCentiC: 80 + random.whole(0, 120),
  });
  for (const [species, supplier, cutter, hours, startG] of done) {
    const menuItem = item(species);
    const simulated = kitchenHistory({
      seed: `${species}/${hours}`,
      today: now,
      days: 1,
      count: 1,
      items: [simulatedItem(menuItem)],
      suppliers: [{ id: supplier, species: [species], driftPerMonth: 0 }],
      cutters: [{ id: cutter, leftOnFrame: 0 }],
      intervalMg: 1_000,
    })[0];
    if (simulated === undefined) continue;
    const scale = (startG * 1_000) / simulated.startMg;
    const weighings = simulated.weighings
      .map((w) => ({ ...w, massMg: Math.round((w.massMg * scale) / 1_000) * 1_000 }))
      .filter((w) => w.massMg > 0);
    const lotId = await replay.receive(
      delivery(
        species,
        supplier,
        cutter,
        ago(hours + 1),
        startG * 1_000,
        startG * 1_000 + (species === 'plaice' ? 46_000 : 0),
      ),
      1,
    );
    const breakdown = await replay.start(lotId, menuItem.plan, cutter, ago(hours), 1, null);
    await replay.weighAll(breakdown, menuItem.plan, cutter, ago(hours), ago(hours - 0.2), weighings);
    await replay.close(breakdown, cutter, ago(hours - 0.25));
  }
  // still whole
  const hakes = await replay.receive(
    delivery('hake', 'Bram Quay Fish', 'Ines Calloway', ago(1.4), 5_740_000, 5_900_000),
    2,
  );
  await replay.receive(delivery('plaice', 'Bram Quay Fish', 'Ines Calloway', ago(1.3), 2_185_000, 2_185_000), 4);
  await replay.receive(
    delivery('guinea-fowl', 'Hollin Farm Poultry', 'Tobin Arkwell', ago(1.2), 2_604_000, 2_600_000),
    2,
  );
  await replay.receive(delivery('brill', 'Bram Quay Fish', 'Tobin Arkwell', ago(1.1), 1_836_000, 1_840_000), 1);
  for (const w of scenario.alsoWhole)
    await replay.receive(
      {
        speciesId: w.species,
        form: w.form,
        supplierId: w.supplier,
        cutterId: 'Tobin Arkwell',
        receivedAt: ago(1),
        startMg: w.startG * 1_000,
        invoiceMg: w.startG * 1_000,
        paidMinor: Math.round((w.startG * w.minorPerKg) / 1_000),
        temperatureCentiC: 80 + random.whole(0, 120),
      },
      w.animals,
    );
  for (const b of scenario.begun) {
    const lotId = await replay.receive(
      {
        speciesId: b.species,
        form: b.form,
        supplierId: b.supplier,
        cutterId: 'Ines Calloway',
        receivedAt: ago(b.hoursAgo + 1),
        startMg: b.startG * 1_000,
        invoiceMg: b.startG * 1_000,
        paidMinor: Math.round((b.startG * b.minorPerKg) / 1_000),
        temperatureCentiC: 120,
      },
      b.animals,
      b.goodForDays === undefined ? null : new Date(now.getTime() + b.goodForDays * DAY).toISOString().slice(0, 10),
    );
    let breakdown = await replay.start(lotId, b.plan, 'Ines Calloway', ago(b.hoursAgo), b.animals, null);
    for (let stage = 0; stage < b.stages; stage += 1) {
      const at = b.hoursAgo - stage * 0.4;
      if (stage > 0) breakdown = await replay.goOn(breakdown, 'Ines Calloway', ago(at));
      await replay.workStage(breakdown, 'Ines Calloway', ago(at), ago(at - 0.25));
      await replay.close(breakdown, 'Ines Calloway', ago(at - 0.3));
    }
  }
  const half = await replay.start(hakes, 'round-fish-two-fillets', 'Ines Calloway', ago(0.4), 1, 2_860_000);
  await replay.weighAll(half, 'round-fish-two-fillets', 'Ines Calloway', ago(0.4), ago(0.2), [
    { pieceId: 'scales-fins', massMg: 88_000 },
    { pieceId: 'gills', massMg: 61_000 },
    { pieceId: 'head', massMg: 536_000 },
    { pieceId: 'fillet', massMg: 803_000 },
  ]);
}

const simulatedItem = (menuItem: scenario.MenuItem) => {
  const species = speciesById.get(menuItem.species);
  const plan = planById.get(menuItem.plan);
  if (species === undefined || plan === undefined)
    throw new Error(`the catalogue has no ${menuItem.species} with ${menuItem.plan}`);
  return { species, form: menuItem.form, plan, minorPerKg: menuItem.minorPerKg };
};

/** Fills an empty database with the demo: six months with that many breakdowns, then this morning. */
export async function seedDemo(
  services: Services,
  pin: string,
  breakdowns: number,
  say: (line: string) => void,
): Promise<void> {
  const now = services.clock();
  const timezone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const cast = await makeHouse(services.db, { ...scenario.house, timezone }, pin);
  const replay = new Replay(services, cast);
  const history = kitchenHistory({
    seed: 'netloft',
    today: now,
    days: 183,
    count: breakdowns,
    items: scenario.menu.map(simulatedItem),
    suppliers: scenario.suppliers.map((s) => ({ id: s.name, species: s.species, driftPerMonth: s.driftPerMonth })),
    cutters: scenario.people
      .filter((p) => p.role !== 'viewer')
      .map((p) => ({ id: p.name, leftOnFrame: p.leftOnFrame })),
    intervalMg: scenario.settings.scales[0].intervalMg,
  });
  const frozen: OnHand[] = [];
  for (const [i, b] of history.entries()) {
    const lotId = await replay.receive(b, 1);
    const breakdownId = await replay.start(lotId, b.planId, b.cutterId, b.startedAt, 1, null);
    await replay.weighAll(breakdownId, b.planId, b.cutterId, b.startedAt, b.closedAt, b.weighings);
    await replay.close(breakdownId, b.cutterId, b.closedAt);
    if (b.closedAt.getTime() < now.getTime() - 2 * DAY) await eatUp(replay, breakdownId, b.closedAt, i, frozen);
    if ((i + 1) % 50 === 0) say(`${i + 1} of ${history.length} breakdowns`);
  }
  await cutToWeightBefore(replay, now);
  await thisMorning(replay, now);
  await stockTheLarder(replay, now, await bonesOfTwoDaysAgo(replay, now));
  await potDay(replay, now);
}
