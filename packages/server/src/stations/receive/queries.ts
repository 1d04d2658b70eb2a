import { categoryById, categoryOfForm, speciesById } from '@zabrik/catalogue';
import type { Delivery, DeliveryLine, Order } from '@zabrik/contract';
import {
  type CameAs,
  claimOf,
  type Food,
  foodOf,
  formatDegrees,
  isBoughtCooked,
  judgeReceiving,
  type Limit,
  minor,
  receivingLimit,
  type Species,
  usuallyRaised,
} from '@zabrik/core';
import type { Sequelize, Transaction } from 'sequelize';
import { goodsOf } from '../../db/goodsHere.ts';
import { toleranceOf } from '../../db/house.ts';
import { limitsOf, readLimitChoice } from '../../db/limits.ts';
import type { HouseRow } from '../../db/models/house.ts';
import { readSpecies } from '../../db/plans.ts';
import { select, selectOne } from '../../db/select.ts';
import type { Place } from '../../http/page.ts';
import { Problem } from '../../http/problem.ts';

type Details = DeliveryLine['details'] & { readonly came?: DeliveryLine['came'] };

interface Row
  extends Omit<
    DeliveryLine,
    'at' | 'speciesName' | 'formName' | 'netMg' | 'differenceMg' | 'differenceMinor' | 'judged' | 'came' | 'details'
  > {
  readonly at: Date;
  readonly details: Details;
}

const LINE = `
select d.id, d.delivery_id as "deliveryId", d.lot_id as "lotId", l.code, d.species, d.form, d.goods, d.animals, h.supplier_id as "supplierId", s.name as "supplierName", d.origin,
       d.gross_mg as "grossMg", d.tare_mg as "tareMg", d.refused_mg as "refusedMg", d.invoice_mg as "invoiceMg", d.paid_minor as "paidMinor",
       d.temperature_centi_c as "temperatureCentiC", d.landed_on as "landedOn", d.use_by as "useBy", d.note, d.verdict,
       d.refused_reason as "refusedReason", d.inspection, d.details, d.boxes, d.codes, p.name as by, d.at, d.movement_id as "movementId",
       array(select f.id from photograph f where f.line_id = d.id order by f.at, f.id) as photographs,
       exists (select 1 from corrected c where c.house_id = d.house_id and c.id = d.movement_id) as reversed
from delivery_line d join delivery h on h.id = d.delivery_id join supplier s on s.id = h.supplier_id join person p on p.id = d.person_id
left join lot l on l.id = d.lot_id
where d.house_id = $1`;

/** What came to the limits: a line is judged as it stood at the door. */
const foodOnArrival = (
  species: Species | undefined,
  line: Pick<Row, 'form' | 'goods'>,
  came: CameAs,
  raised: 'wild' | 'farmed' | undefined,
): Food => {
  if (species === undefined) {
    const goods = goodsOf(line.goods ?? '');
    return goods?.id.startsWith('egg') === true
      ? 'eggs'
      : goods?.group === 'dairy'
        ? 'dairy'
        : goods?.ready === true
          ? 'ready'
          : 'other';
  }
  const category = categoryOfForm(species.id, line.form ?? '');
  return foodOf({
    species,
    category,
    categoryGroup: categoryById.get(category ?? '')?.group,
    ready: isBoughtCooked(species, line.form),
    live: came === 'live',
    farmed: (raised ?? usuallyRaised(species)) === 'farmed',
  });
};

interface Selected {
  readonly limits: readonly Limit[];
  /** The handbook's animals and the house's own. */
  readonly animals: ReadonlyMap<string, Species>;
}

const lineOf = (row: Row, { limits, animals }: Selected): DeliveryLine => {
  const species = animals.get(row.species ?? '');
  const { came = 'fresh', ...details } = row.details;
  const netMg = row.grossMg === null ? 0 : row.grossMg - row.tareMg;
  const differenceMg = row.grossMg === null || row.invoiceMg === null ? 0 : netMg - row.invoiceMg;
  const food = foodOnArrival(species, row, came, details.raised);
  const limit = receivingLimit(limits, food, came === 'frozen');
  const judged = row.temperatureCentiC === null ? undefined : judgeReceiving(limit, row.temperatureCentiC);
  return {
    ...row,
    at: row.at.toISOString(),
    came,
    details,
    refusedMg: row.verdict === 'refused' ? netMg : row.refusedMg,
    speciesName: species?.name ?? goodsOf(row.goods ?? '')?.name ?? row.species ?? row.goods ?? '',
    formName: species?.forms.find((f) => f.id === row.form)?.name ?? row.form ?? '',
    netMg,
    differenceMg,
    differenceMinor: minor(row.invoiceMg === null ? 0 : (row.paidMinor * differenceMg) / row.invoiceMg),
    judged:
      judged === undefined
        ? null
        : {
            limitId: judged.limit.id,
            about: 'receiving',
            verdict: judged.verdict,
            says: `${judged.verdict} the limit you selected of ${judged.limit.kind === 'max_temp' ? `at most ${formatDegrees(judged.limit.value.max_C, judged.limit.value.max_F)}` : `at least ${formatDegrees(judged.limit.value.min_C, judged.limit.value.min_F)}`}`,
            document: `${judged.limit.citation.document} ${judged.limit.citation.section}`,
            certainty: judged.limit.certainty,
          },
  };
};

const selectedOf = async (db: Sequelize, house: HouseRow, transaction?: Transaction): Promise<Selected> => {
  const choice = await readLimitChoice(db, house.id, house.timezone, transaction);
  return {
    limits: limitsOf(choice),
    animals: await readSpecies(db, house.id, transaction),
  };
};

export async function readLine(
  db: Sequelize,
  house: HouseRow,
  lineId: string,
  transaction?: Transaction,
): Promise<DeliveryLine | undefined> {
  const row = await selectOne<Row>(db, `${LINE} and d.id = $2`, [house.id, lineId], transaction);
  return row === undefined ? undefined : lineOf(row, await selectedOf(db, house, transaction));
}

interface HeadRow {
  readonly id: string;
  readonly supplierId: string;
  readonly supplierName: string;
  readonly orderId: string | null;
  readonly invoice: string | null;
  readonly by: string;
  readonly at: Date;
  readonly closedAt: Date | null;
}

const HEAD = `
select h.id, h.supplier_id as "supplierId", s.name as "supplierName", h.order_id as "orderId", h.invoice, p.name as by, h.at, h.closed_at as "closedAt"
from delivery h join supplier s on s.id = h.supplier_id join person p on p.id = h.person_id where h.house_id = $1`;

async function deliveriesOf(
  db: Sequelize,
  house: HouseRow,
  heads: readonly HeadRow[],
  transaction?: Transaction,
): Promise<Delivery[]> {
  // one after another: they may share a transaction's one connection
  const selected = await selectedOf(db, house, transaction);
  const rows = await select<Row>(
    db,
    `${LINE} and d.delivery_id = any($2::uuid[]) order by d.at, d.id`,
    [house.id, heads.map((h) => h.id)],
    transaction,
  );
  const orders = await readOrders(
    db,
    house.id,
    heads.flatMap((h) => h.orderId ?? []),
    transaction,
  );
  const tolerance = toleranceOf(house);
  return heads.map((head): Delivery => {
    const lines = rows.filter((r) => r.deliveryId === head.id).map((r) => lineOf(r, selected));
    const claim = claimOf(
      lines
        .filter((l) => !l.reversed)
        .map((l) => ({ ...l, invoiceMg: l.invoiceMg ?? 0, refused: l.verdict === 'refused' })),
      { toleranceShare: tolerance.share, toleranceMg: tolerance.massMg },
    );
    return {
      ...head,
      at: head.at.toISOString(),
      closedAt: head.closedAt?.toISOString() ?? null,
      lines,
      claim: { lines: [...claim.lines], claimMinor: claim.claimMinor },
      missing: (orders.find((o) => o.id === head.orderId)?.lines ?? []).flatMap((l) => {
        const massMg = l.massMg - l.cameMg;
        return massMg > l.massMg * SMALL_CHANGE ? [{ position: l.position, name: l.name, massMg }] : [];
      }),
    };
  });
}

/** What is less than this of an order is not waited for: animals do not weigh what was ordered. */
const SMALL_CHANGE = 0.1;

export async function readDelivery(
  db: Sequelize,
  house: HouseRow,
  deliveryId: string,
  transaction?: Transaction,
): Promise<Delivery> {
  const heads = await select<HeadRow>(db, `${HEAD} and h.id = $2`, [house.id, deliveryId], transaction);
  const [delivery] = await deliveriesOf(db, house, heads, transaction);
  if (delivery === undefined) throw new Problem('not_found');
  return delivery;
}

/** Newest first, one more than asked for. */
export async function listDeliveries(
  db: Sequelize,
  house: HouseRow,
  limit: number,
  after: Place | undefined,
): Promise<Delivery[]> {
  const heads = await select<HeadRow>(
    db,
    `${HEAD} and ($2::timestamptz is null or (h.at, h.id) < ($2::timestamptz, $3::uuid)) order by h.at desc, h.id desc limit $4`,
    [house.id, after?.at ?? null, after?.id ?? null, limit + 1],
  );
  return deliveriesOf(db, house, heads);
}

interface OrderRow extends Omit<Order, 'at' | 'lines'> {
  readonly at: Date;
  readonly lines: Omit<Order['lines'][number], 'name'>[];
}

const ORDER = `
select o.id, o.supplier_id as "supplierId", s.name as "supplierName", o.due_on as "dueOn", o.note, o.state, p.name as by, o.at,
  (select jsonb_agg(jsonb_build_object('position', l.position, 'species', l.species, 'form', l.form, 'goods', l.goods, 'count', l.count, 'massMg', l.mass_mg,
      'minorPerKg', l.minor_per_kg,
      'cameMg', (select coalesce(sum(d.gross_mg - d.tare_mg - d.refused_mg), 0) from delivery_line d join delivery h on h.id = d.delivery_id
                 where h.order_id = o.id and d.order_position = l.position and d.verdict <> 'refused'
                   and not exists (select 1 from corrected c where c.house_id = d.house_id and c.id = d.movement_id))) order by l.position)
   from supply_order_line l where l.order_id = o.id) as lines
from supply_order o join supplier s on s.id = o.supplier_id join person p on p.id = o.person_id where o.house_id = $1`;

const nameOf = (l: { species: string | null; form: string | null; goods: string | null }): string => {
  const species = speciesById.get(l.species ?? '');
  const form = species?.forms.find((f) => f.id === l.form)?.name ?? l.form;
  return l.goods === null ? `${species?.name ?? l.species}, ${form}` : (goodsOf(l.goods)?.name ?? l.goods);
};

const orderOf = ({ at, lines, ...row }: OrderRow): Order => ({
  ...row,
  at: at.toISOString(),
  lines: lines.map((l) => ({ ...l, name: nameOf(l) })),
});

export async function readOrders(
  db: Sequelize,
  houseId: string,
  ids: readonly string[],
  transaction?: Transaction,
): Promise<Order[]> {
  if (ids.length === 0) return [];
  return (await select<OrderRow>(db, `${ORDER} and o.id = any($2::uuid[])`, [houseId, [...ids]], transaction)).map(
    orderOf,
  );
}

export const listOpenOrders = async (db: Sequelize, houseId: string): Promise<Order[]> =>
  (await select<OrderRow>(db, `${ORDER} and o.state = 'open' order by o.due_on, o.at limit 100`, [houseId])).map(
    orderOf,
  );
