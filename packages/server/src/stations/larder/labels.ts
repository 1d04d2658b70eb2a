import type { Answer, Asked, api } from '@zabrik/contract';
import { type LabelContent, labelOf } from '@zabrik/core';
import type { Transaction } from 'sequelize';
import { dayIn, placesOf, readHouse } from '../../db/house.ts';
import { readLimitChoice } from '../../db/limits.ts';
import type { HouseRow } from '../../db/models/house.ts';
import { LotTable } from '../../db/models/lot.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { print, printedDocument, printedJobs } from '../../devices/askDevice.ts';
import type { GivenFile } from '../../http/file.ts';
import { Problem } from '../../http/problem.ts';
import type { Actor, InCommand, Services } from '../../services.ts';

import { inThread } from '../../threads/inThread.ts';
import { writeEvent } from './keep.ts';

interface Row {
  readonly id: string;
  readonly code: string;
  readonly name: string;
  readonly massMg: number;
  readonly pieces: number;
  readonly madeAt: Date;
  readonly useBy: string | null;
  readonly state: 'fresh' | 'frozen' | 'thawed';
  readonly frozenOn: string | null;
  readonly thawedOn: string | null;
  readonly placeId: string;
  readonly ready: boolean;
  readonly allergens: string[];
  readonly supplierName: string | null;
  readonly origin: string | null;
  readonly labels: number;
}

async function readLabelled(
  services: Services,
  houseId: string,
  lotIds: readonly string[],
  transaction?: Transaction,
): Promise<Row[]> {
  const rows = await select<Row>(
    services.db,
    `select l.id, l.code, l.name, b.mass_mg as "massMg", b.pieces, l.made_at as "madeAt", l.use_by as "useBy", l.state, l.frozen_on as "frozenOn",
            l.thawed_on as "thawedOn", l.place_id as "placeId", l.ready, l.allergens, s.name as "supplierName", d.origin, l.labels
     from lot l join lot_balance b on b.lot_id = l.id left join supplier s on s.id = l.supplier_id left join delivery_line d on d.lot_id = l.id
     where l.house_id = $1 and l.id = any($2::uuid[])`,
    [houseId, [...lotIds]],
    transaction,
  );
  const byId = new Map(rows.map((r) => [r.id, r]));
  return lotIds.map((id) => {
    const row = byId.get(id);
    if (row === undefined) throw new Problem('not_found', 'There is no such lot in this house.');
    if (row.massMg === 0)
      throw new Problem('lot_gone', `Lot ${row.code} is used up: there is nothing to put a label on.`);
    return row;
  });
}

const contentOf = (row: Row, house: HouseRow, by: string): LabelContent =>
  labelOf(
    {
      ...row,
      madeOn: dayIn(house.timezone, row.madeAt),
      placeName: placesOf(house).find((p) => p.id === row.placeId)?.name ?? row.placeId,
    },
    by,
    row.labels,
  );

const isAmerican = async (services: Services, house: HouseRow): Promise<boolean> =>
  (await readLimitChoice(services.db, house.id, house.timezone)).profile.id.startsWith('us');

/** Labels to look at. It does not count as printed. */
export async function labelPdf(
  services: Services,
  actor: Actor,
  { lots, size }: Asked<typeof api.larder.labelPdf>['query'],
): Promise<GivenFile> {
  const house = await readHouse(services.db, actor);
  const rows = await readLabelled(services, actor.houseId, lots.split(','));
  const pdf = await inThread('labels', {
    contents: rows.map((row) => contentOf(row, house, actor.name)),
    copies: rows.map(() => 1),
    size,
    american: await isAmerican(services, house),
  });
  return { type: 'application/pdf', name: `labels-${rows[0]?.code ?? ''}.pdf`, inline: true, body: pdf };
}

type PrintAsked = Asked<typeof api.larder.printLabels>;

/** Draws the labels and prints them: no transaction is open and no row locked while a printer takes its time. */
export async function printSheets(
  services: Services,
  actor: Actor,
  { body }: PrintAsked,
  commandId: string,
): Promise<Answer<typeof api.larder.printLabels>> {
  const house = await readHouse(services.db, actor);
  const copies = new Map(body.lots.map((l) => [l.lotId, l.copies]));
  const rows = await readLabelled(services, actor.houseId, [...copies.keys()]);
  const contents = rows.map((row) => contentOf(row, house, actor.name));
  const each = rows.map((row) => copies.get(row.id) ?? 1);
  const labels = each.reduce((sum, n) => sum + n, 0);
  const tell = (done: number): void => services.tell(actor.houseId, { command: commandId, done, of: labels });
  tell(0);
  const american = await isAmerican(services, house);
  const pdf = await inThread('labels', { contents, copies: each, size: body.size, american }, { told: tell });
  tell(labels);
  const name = rows.length === 1 ? `${rows[0]?.code} ${rows[0]?.name}` : `${rows[0]?.code} and ${rows.length - 1} more`;
  const job = await print(services.devicesOf(actor.houseId).printer, name, labels, pdf);
  return {
    job,
    labels,
    reprints: contents.reduce((sum, content, i) => sum + (content.reprint ? (each[i] ?? 0) : 0), 0),
  };
}

/** Writes on every lot that it was printed: a second label of a lot says that it is one. What could not be printed is not written down. */
export async function notePrinted(
  services: Services,
  command: InCommand,
  { body }: PrintAsked,
  printed: Answer<typeof api.larder.printLabels>,
): Promise<Answer<typeof api.larder.printLabels>> {
  const lots = rowsOf(services.db, LotTable, command);
  const copies = new Map(body.lots.map((l) => [l.lotId, l.copies]));
  for (const [lotId, of] of copies) {
    await lots.increase({ id: lotId }, { labels: of });
    await writeEvent(services, command, lotId, {
      kind: 'label',
      before: {},
      after: { copies: String(of) },
      note: null,
    });
  }
  return printed;
}

/** What came out lately: the printer's jobs, and the labels of this house that were printed last. */
export async function listPrinted(services: Services, actor: Actor): Promise<Answer<typeof api.larder.printed>> {
  const events = await select<{ lotId: string; by: string }>(
    services.db,
    `select e.lot_id as "lotId", p.name as by from lot_event e join person p on p.id = e.person_id join lot_balance b on b.lot_id = e.lot_id and b.mass_mg > 0
     where e.house_id = $1 and e.kind = 'label' order by e.seq desc limit 12`,
    [actor.houseId],
  );
  const house = await readHouse(services.db, actor);
  const latest = [...new Map(events.map((e) => [e.lotId, e.by]))];
  const rows = await readLabelled(
    services,
    actor.houseId,
    latest.map(([lotId]) => lotId),
  );
  return {
    latest: rows.map((row, i) => contentOf({ ...row, labels: row.labels - 1 }, house, latest[i]?.[1] ?? '')),
    jobs: await printedJobs(services.devicesOf(actor.houseId).printer),
  };
}

export const showPrinted = async (services: Services, actor: Actor, job: string): Promise<GivenFile> => ({
  type: 'application/pdf',
  name: `printed-${job}.pdf`,
  inline: true,
  body: await printedDocument(services.devicesOf(actor.houseId).printer, job),
});
