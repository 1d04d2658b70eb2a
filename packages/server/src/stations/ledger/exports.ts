import type { Asked, api } from '@zabrik/contract';
import { type EpcisLot, epcisDocument, minorDigits, type TracedMovement } from '@zabrik/core';
import Papa from 'papaparse';
import type { Sequelize } from 'sequelize';
import { readHouse } from '../../db/house.ts';
import { select, selectOne } from '../../db/select.ts';
import type { GivenFile } from '../../http/file.ts';
import { Problem } from '../../http/problem.ts';
import { FAMILY, STANDS } from '../../massledger/family.ts';
import type { Services } from '../../services.ts';

type CsvQuery = Pick<Asked<typeof api.ledger.exportCsv>['query'], 'from' | 'until' | 'cells'>;
/** `lot`: of its family alone. */
type EpcisQuery = Pick<Asked<typeof api.ledger.exportEpcis>['query'], 'from' | 'until' | 'lot'>;
/** Told how far it is, 0 to 1. */
type Tell = (ratio: number) => void;
const nobody: Tell = () => undefined;

const PAGE = 2_000;

interface CsvRow {
  readonly posting: number;
  /** When, to the last digit: a moment of ours has a thousandth of a second, the database's a millionth. */
  readonly since: string;
  readonly movement: string;
  readonly kind: string;
  readonly at: Date;
  readonly by: string;
  readonly reverses: string | null;
  readonly lot: string | null;
  readonly name: string | null;
  readonly sink: string | null;
  readonly reason: string | null;
  readonly massMg: number;
  readonly costMinor: number;
  readonly note: string | null;
}

const headings = [
  'movement',
  'kind',
  'at',
  'by',
  'takes_back',
  'lot',
  'what',
  'sink',
  'reason',
  'mass_kg',
  'cost',
  'currency',
  'note',
] as const;

/** From and until as whole days of the house's time zone, of a column of moments: as bounds, which an index can begin and end at. */
const between = (at: string, from: string, until: string, timezone: string): string =>
  `${at} >= coalesce(${from}::date::timestamp at time zone ${timezone}, '-infinity') and ${at} < coalesce((${until}::date + 1)::timestamp at time zone ${timezone}, 'infinity')`;

/**
 * Every posting as CSV by RFC 4180: CRLF, quotes where they are needed, a point in decimals, days and times by ISO 8601. For a spreadsheet,
 * text it would run gets an apostrophe before it; `raw` leaves it as it is.
 */
async function* csvRows(
  db: Sequelize,
  houseId: string,
  timezone: string,
  currency: string,
  query: CsvQuery,
  tell: Tell,
) {
  const decimals = minorDigits(currency);
  const escapeFormulae = query.cells === 'spreadsheet';
  const line = (rows: readonly (readonly unknown[])[]): string =>
    `${Papa.unparse(rows as unknown[][], { newline: '\r\n', escapeFormulae: escapeFormulae ? /^[=+@\t\r]|^-(?!\d+(?:\.\d+)?$)/ : false })}\r\n`;
  yield line([headings]);
  const time = [houseId, query.from ?? null, query.until ?? null, timezone];
  const ends = await selectOne<{ first: Date | null; last: Date | null }>(
    db,
    `select min(p.at) as first, max(p.at) as last from posting p where p.house_id = $1 and ${between('p.at', '$2', '$3', '$4')}`,
    time,
  );
  const [first, end] = [ends?.first?.getTime() ?? 0, ends?.last?.getTime() ?? 0];
  for (let after: Pick<CsvRow, 'since' | 'posting'> = { since: '-infinity', posting: 0 }; ; ) {
    const rows = await select<CsvRow>(
      db,
      `select p.id as posting, p.at::text as since, m.id as movement, m.kind, m.at, w.name as by, m.reverses, l.code as lot, l.name, p.sink, p.reason, p.mass_mg as "massMg",
              p.cost_minor as "costMinor", m.note
       from posting p join movement m on m.id = p.movement_id join person w on w.id = m.person_id left join lot l on l.id = p.lot_id
       where p.house_id = $1 and ${between('p.at', '$2', '$3', '$4')} and (p.at, p.id) > ($5::timestamptz, $6) order by p.at, p.id limit ${PAGE}`,
      [...time, after.since, after.posting],
    );
    if (rows.length > 0)
      yield line(
        rows.map((r) => [
          r.movement,
          r.kind,
          r.at.toISOString(),
          r.by,
          r.reverses ?? '',
          r.lot ?? '',
          r.name ?? '',
          r.sink ?? '',
          r.reason ?? '',
          (r.massMg / 1_000_000).toFixed(6),
          (r.costMinor / 10 ** decimals).toFixed(decimals),
          currency,
          r.note ?? '',
        ]),
      );
    const last = rows.at(-1);
    if (last === undefined || rows.length < PAGE) return;
    after = last;
    tell((last.at.getTime() - first) / Math.max(1, end - first));
  }
}

export async function movementsCsv(
  services: Services,
  houseId: string,
  query: CsvQuery,
  tell: Tell = nobody,
): Promise<GivenFile> {
  const house = await readHouse(services.db, { houseId });
  return {
    type: 'text/csv',
    name: `movements-${house.slug}.csv`,
    body: csvRows(services.longReads, houseId, house.timezone, house.currency, query, tell),
  };
}

const MOST_EVENTS = 20_000;

/** "+01:00": how far a time zone was from UTC at that moment. */
const offsetIn = (timezone: string): ((at: string) => string) => {
  // made once: to make one takes longer than to write the event
  const zone = new Intl.DateTimeFormat('en-GB', { timeZone: timezone, timeZoneName: 'longOffset' });
  return (at) => {
    const part = zone.formatToParts(new Date(at)).find((p) => p.type === 'timeZoneName')?.value;
    const match = /([+-]\d\d):(\d\d)/.exec(part ?? '');
    return match === null ? '+00:00' : `${match[1]}:${match[2]}`;
  };
};

/** Events written in one go: a few milliseconds, and then it is somebody else's turn. */
const TOGETHER = 250;

interface EventRow {
  readonly id: string;
  readonly kind: string;
  readonly at: Date;
  readonly postings: TracedMovement['postings'];
}

/** The movements that stand, of a time or of one lot's family, as EPCIS 2.0. Errors: `too_large` when it is more than can be one file. */
export async function movementsEpcis(
  services: Services,
  houseId: string,
  query: EpcisQuery,
  tell: Tell = nobody,
): Promise<GivenFile> {
  const db = services.longReads;
  const house = await readHouse(services.db, { houseId });
  const rows = await select<EventRow>(
    db,
    `${FAMILY} select m.id, m.kind, m.at, jsonb_agg(jsonb_build_object('lotId', p.lot_id, 'sink', p.sink, 'reason', p.reason, 'massMg', p.mass_mg) order by p.id) as postings
     from movement m join posting p on p.movement_id = m.id
     where m.house_id = $2 and ${between('m.at', '$3', '$4', '$5')} and ${STANDS}
       and ($1::uuid is null or exists (select 1 from posting t join family f on f.lot_id = t.lot_id where t.movement_id = m.id))
     group by m.house_id, m.at, m.id order by m.at, m.id limit ${MOST_EVENTS + 1}`,
    [query.lot ?? null, houseId, query.from ?? null, query.until ?? null, house.timezone],
  );
  if (rows.length > MOST_EVENTS)
    throw new Problem('too_large', `More than ${MOST_EVENTS} events: choose a shorter time.`);
  const ids = [...new Set(rows.flatMap((r) => r.postings.flatMap((p) => p.lotId ?? [])))];
  const lots = await select<EpcisLot>(
    db,
    `select l.id, l.code, l.name, l.use_by as "useBy", s.name as "supplierName", l.allergens from lot l left join supplier s on s.id = l.supplier_id
     where l.house_id = $1 and l.id = any($2::uuid[])`,
    [houseId, ids],
  );
  const known = new Map(lots.map((l) => [l.id, l]));
  const told = {
    root: `https://${house.slug}.zabrik.invalid`,
    offset: offsetIn(house.timezone),
    at: services.clock().toISOString(),
  };
  async function* parts(): AsyncGenerator<string> {
    const { epcisBody: _, ...head } = epcisDocument([], known, told);
    yield `${JSON.stringify(head).slice(0, -1)},"epcisBody":{"eventList":[`;
    let first = true;
    for (let from = 0; from < rows.length; from += TOGETHER) {
      const some = rows.slice(from, from + TOGETHER).map((r) => ({ ...r, at: r.at.toISOString() }));
      const events = epcisDocument(some, known, told).epcisBody.eventList.map((e) => JSON.stringify(e));
      tell(from / rows.length);
      if (events.length > 0) yield `${first ? '' : ','}${events.join(',')}`;
      first &&= events.length === 0;
    }
    yield ']}}';
  }
  return { type: 'application/ld+json', name: `events-${house.slug}.jsonld`, body: parts() };
}
