import type { Answer, Asked, api } from '@zabrik/contract';
import { DeliveryLineTable } from '../../db/models/deliveryLine.ts';
import { PhotographTable } from '../../db/models/photograph.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import type { GivenFile } from '../../http/file.ts';
import { Problem } from '../../http/problem.ts';
import { keepPhotograph, type Redrawn, redraw } from '../../photographs/redraw.ts';
import type { Actor, InCommand, Services } from '../../services.ts';

const MOST_ON_A_LINE = 12;

/** Errors: `not_found`. */
async function lineOf(services: Services, actor: Actor, lineId: string): Promise<void> {
  if ((await rowsOf(services.db, DeliveryLineTable, actor).one({ id: lineId })) === undefined)
    throw new Problem('not_found');
}

/** A photograph of a line of this house, drawn anew. Errors: `not_found`, and those of redraw. */
export async function redrawOfLine(
  services: Services,
  actor: Actor,
  { params, body }: Asked<typeof api.receive.photograph>,
): Promise<Redrawn> {
  await lineOf(services, actor, params.lineId);
  return redraw(body.base64);
}

/** Keeps a photograph of a line. Errors: `not_found`, `too_large`. */
export async function addPhotograph(
  services: Services,
  command: InCommand,
  { params: { lineId } }: Asked<typeof api.receive.photograph>,
  redrawn: Redrawn,
): Promise<Answer<typeof api.receive.photograph>> {
  const { db } = services;
  const line = await rowsOf(db, DeliveryLineTable, command).one({ id: lineId }, { lock: 'update' });
  if (line === undefined) throw new Problem('not_found');
  if ((await rowsOf(db, PhotographTable, command).count({ lineId })) >= MOST_ON_A_LINE)
    throw new Problem('too_large', `A line keeps ${MOST_ON_A_LINE} photographs at most.`);
  return keepPhotograph(services, command, lineId, redrawn);
}

export async function listPhotographs(
  services: Services,
  actor: Actor,
  lineId: string,
): Promise<Answer<typeof api.receive.photographs>> {
  await lineOf(services, actor, lineId);
  const rows = await select<{ id: string; width: number; height: number; by: string; at: Date }>(
    services.db,
    `select f.id, f.width, f.height, p.name as by, f.at from photograph f join person p on p.id = f.person_id
     where f.line_id = $1 and f.house_id = $2 order by f.at, f.id`,
    [lineId, actor.houseId],
  );
  return { photographs: rows.map((r) => ({ ...r, at: r.at.toISOString() })) };
}

export async function showPhotograph(services: Services, actor: Actor, id: string): Promise<GivenFile> {
  const row = await rowsOf(services.db, PhotographTable, actor).one({ id });
  if (row === undefined) throw new Problem('not_found');
  return { type: row.type, name: `photograph-${id}.${row.type.slice(6)}`, inline: true, body: row.bytes };
}
