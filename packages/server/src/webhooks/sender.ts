/** Makes the calls that were written down: in each server process, each call by one of them, later and later while nobody answers. */
import type { HookCall } from '@zabrik/contract';
import type { Sequelize } from 'sequelize';
import { forServer } from '../db/houseScope.ts';
import { select, selectOne } from '../db/select.ts';
import type { Services } from '../services.ts';
import { callOnce } from './callOnce.ts';

const LOOK_MS = 2_000;
/** Taken by a process for so long: one that dies in the middle leaves it to another. */
const TAKEN_MS = 60_000;
const AT_ONCE = 20;
/** How long after each try that failed the next one comes; after the last it is given up: two days and a half. */
export const PAUSES_MS: readonly number[] = [10, 60, 300, 1_800, 7_200, 21_600, 43_200, 86_400, 86_400].map(
  (s) => s * 1_000,
);
/** How long what came of a call is kept. */
const KEPT_MS = 14 * 86_400_000;
const FORGET_MS = 3_600_000;

interface Due {
  readonly id: string;
  readonly tries: number;
  readonly topic: 'movement' | 'used-up';
  readonly movementId: string;
  readonly lotId: string | null;
  readonly webhookId: string;
  readonly url: string;
  readonly secret: string;
}

/** What is told: the movement as it stands in the books, or the lot that was used up by it. */
async function bodyOf(db: Sequelize, { topic, movementId, lotId }: Due): Promise<HookCall | undefined> {
  const movement = await selectOne<{
    house: string;
    currency: string;
    at: Date;
    kind: string;
    by: string;
    reverses: string | null;
    note: string | null;
  }>(
    db,
    `select h.slug as house, h.currency, m.at, m.kind, p.name as by, m.reverses, m.note
     from movement m join house h on h.id = m.house_id join person p on p.id = m.person_id where m.id = $1 limit 1`,
    [movementId],
  );
  if (movement === undefined) return undefined;
  const { house, currency, kind, by, reverses, note } = movement;
  const head = { house, at: movement.at.toISOString(), movement: movementId };
  if (topic === 'movement') {
    const postings = await select<Extract<HookCall, { topic: 'movement' }>['postings'][number]>(
      db,
      `select l.code as lot, l.name, p.sink, p.reason, p.mass_mg as "massMg", p.cost_minor as "costMinor"
       from posting p left join lot l on l.id = p.lot_id where p.movement_id = $1 order by p.id`,
      [movementId],
    );
    return { topic, ...head, kind, by, reverses, note, currency, postings };
  }
  const lot = await selectOne<{ lot: string; name: string; species: string | null; category: string | null }>(
    db,
    'select code as lot, name, species, category from lot where id = $1',
    [lotId],
  );
  return lot === undefined ? undefined : { topic, ...head, ...lot };
}

export class WebhookSender {
  readonly #services: Pick<Services, 'db' | 'clock' | 'log'>;
  #timer: NodeJS.Timeout | undefined;
  #going: Promise<void> = Promise.resolve();
  #stopped = false;
  #forgotAt = 0;

  constructor(services: Pick<Services, 'db' | 'clock' | 'log'>) {
    this.#services = services;
  }

  start(): void {
    const round = (): void => {
      this.#going = this.send()
        .then(
          () => undefined,
          (err: unknown) => this.#services.log.warn({ err }, 'calls to programs could not be looked through'),
        )
        .then(() => {
          if (this.#stopped) return;
          this.#timer = setTimeout(round, LOOK_MS);
          this.#timer.unref();
        });
    };
    round();
  }

  async stop(): Promise<void> {
    this.#stopped = true;
    clearTimeout(this.#timer);
    await this.#going;
  }

  /** Makes every call that is due, first those to whom the last one got through: who does not answer keeps nobody waiting. Answers how many there were. */
  async send(): Promise<number> {
    const { db, clock } = this.#services;
    let sent = 0;
    for (;;) {
      if (this.#stopped) return sent;
      const now = clock();
      const due = await forServer(() =>
        select<Due>(
          db,
          `update webhook_call c set due_at = $2, tries = c.tries + 1
           from (select w.id from webhook_call w join webhook of on of.id = w.webhook_id where w.ended_at is null and w.due_at <= $1
                 order by of.last_why is not null, w.due_at, w.id limit ${AT_ONCE} for update of w skip locked) d,
                webhook h
           where c.id = d.id and h.id = c.webhook_id
           returning c.id, c.tries, c.topic, c.movement_id as "movementId", c.lot_id as "lotId", h.id as "webhookId", h.url, h.secret`,
          [now, new Date(now.getTime() + TAKEN_MS)],
        ),
      );
      await Promise.all(due.map((call) => this.#send(call)));
      sent += due.length;
      if (due.length < AT_ONCE) break;
    }
    if (clock().getTime() - this.#forgotAt > FORGET_MS) {
      this.#forgotAt = clock().getTime();
      await forServer(() =>
        db.query('delete from webhook_call where ended_at < $1', { bind: [new Date(this.#forgotAt - KEPT_MS)] }),
      );
    }
    return sent;
  }

  async #send(due: Due): Promise<void> {
    const { db, clock } = this.#services;
    const body = await forServer(() => bodyOf(db, due));
    const now = clock();
    const why = body === undefined ? 'What it tells of is not in the records.' : await callOnce(due, due.id, now, body);
    const pause = body === undefined ? undefined : PAUSES_MS[due.tries - 1];
    await forServer(async () => {
      const at = clock();
      if (why === null || pause === undefined)
        await db.query('update webhook_call set ended_at = $2, ok = $3 where id = $1', {
          bind: [due.id, at, why === null],
        });
      else
        await db.query('update webhook_call set due_at = $2 where id = $1 and ended_at is null', {
          bind: [due.id, new Date(at.getTime() + pause)],
        });
      if (why === null)
        await db.query('update webhook set last_ok_at = $2, last_why = null where id = $1', {
          bind: [due.webhookId, at],
        });
      else await db.query('update webhook set last_why = $2 where id = $1', { bind: [due.webhookId, why] });
    });
  }
}
