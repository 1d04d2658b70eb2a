import { permissions, type WeighBody, type Weighing } from '@zabrik/contract';
import type { Destination } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { select, selectOne } from '../../db/select.ts';
import { mustHaveRoom } from '../../http/mount.ts';
import { asProblem, Problem } from '../../http/problem.ts';
import type { Services } from '../../services.ts';

/** Who weighs: a session still to be looked up, or someone known already. */
export type Weigher =
  | { readonly sid: string; readonly personId: string | undefined }
  | { readonly houseId: string; readonly personId: string; readonly name: string };

interface Row {
  readonly id: string;
  readonly sid: string | null;
  readonly house_id: string | null;
  readonly person_id: string | null;
  readonly breakdown_id: string;
  readonly piece_id: string | null;
  readonly destination: Destination | null;
  readonly mass_mg: number | null;
  readonly source: 'scale' | 'typed' | null;
  readonly replaces: string | null;
  readonly at: string;
  readonly count: number;
  readonly animal: number | null;
  readonly scale: string | null;
  /** The weighing it goes together with. */
  readonly pair: string | null;
}

interface Judged {
  readonly id: string;
  readonly house_id: string | null;
  readonly person_id: string | null;
  readonly person: string | null;
  readonly allowed: boolean;
  readonly state: string | null;
  readonly written: boolean;
  readonly refusal: string | null;
  readonly known: boolean;
}

interface Waiting {
  /** One weighing, or two that go together. */
  readonly rows: readonly [Row, ...Row[]];
  readonly done: (result: Judged) => void;
  readonly failed: (error: unknown) => void;
}

const MOST_TOGETHER = 200;
/** Clocks of one kitchen may stand so far apart. */
const AHEAD_MS = 120_000;

const codeOf = (error: unknown): string | undefined =>
  error instanceof Error && 'parent' in error ? (error.parent as { code?: string }).code : undefined;
const isHalf = (error: unknown): boolean => codeOf(error) === 'ZB004';
/** Two put the same weight right at the same moment. */
const isTaken = (error: unknown): boolean => codeOf(error) === '23505';

/**
 * Gathers weighings into shared commits: those that arrive while a commit is on its way to the disk wait and go together in the
 * next. A bench alone waits for nothing. Measured (docs/benchmarks.md): this is what lets twenty benches share one disk.
 */
class SharedCommits {
  readonly #db: Sequelize;
  #waiting: Waiting[] = [];
  #busy = false;

  constructor(db: Sequelize) {
    this.#db = db;
  }

  write(rows: Waiting['rows']): Promise<Judged> {
    return new Promise((done, failed) => {
      this.#waiting.push({ rows, done, failed });
      this.#ask();
    });
  }

  #ask(): void {
    if (this.#busy || this.#waiting.length === 0) return;
    this.#busy = true;
    // the other requests of this turn of the event loop come along
    setImmediate(() => {
      void this.#commit(this.#waiting.splice(0, MOST_TOGETHER)).finally(() => {
        this.#busy = false;
        this.#ask();
      });
    });
  }

  /** `again`: it was tried before, alone. */
  async #commit(batch: readonly Waiting[], again = false): Promise<void> {
    try {
      const rows = await select<Judged>(this.#db, 'select * from take_weighings($1::jsonb, $2::text[])', [
        JSON.stringify(batch.flatMap((b) => b.rows)),
        permissions('bench.weigh'),
      ]);
      const byId = new Map(rows.map((row) => [row.id, row]));
      // the same key twice in one commit: the first wrote it, the second finds it written
      const answered = new Set<string>();
      for (const {
        rows: [row, other],
        done,
        failed,
      } of batch) {
        const result = byId.get(row.id);
        const refusal = result?.refusal ?? byId.get(other?.id ?? '')?.refusal ?? null;
        if (result === undefined) failed(new Error(`weighing ${row.id} was not judged`));
        else done({ ...result, refusal, written: result.written && !answered.has(row.id) });
        answered.add(row.id);
      }
    } catch (error) {
      const [only] = batch;
      // two tablets split one weight at the same moment: the other has written it by now, and this one is told so
      if (batch.length === 1 && (isHalf(error) || isTaken(error)) && !again) return this.#commit(batch, true);
      if (batch.length === 1 && isHalf(error)) {
        // the name of its other half is taken by something else
        only?.failed(new Problem('key_reused'));
        return;
      }
      // one that the database cannot take must not take others along: each once more by itself
      if (
        batch.length === 1 ||
        only === undefined ||
        asProblem(error).code === 'database_away' ||
        asProblem(error).code === 'disk_full'
      )
        for (const { failed } of batch) failed(error);
      else for (const each of batch) await this.#commit([each]);
    }
  }
}

const commitsOf = new WeakMap<Sequelize, SharedCommits>();
const sharedCommits = (db: Sequelize): SharedCommits => {
  const commits = commitsOf.get(db) ?? new SharedCommits(db);
  commitsOf.set(db, commits);
  return commits;
};

interface Stored extends Omit<Weighing, 'at'> {
  readonly at: Date;
  readonly breakdownId: string;
  readonly houseId: string;
}

const stored = (db: Sequelize, id: string): Promise<Stored | undefined> =>
  selectOne<Stored>(
    db,
    `select w.id, w.piece_id as "pieceId", w.destination, w.mass_mg as "massMg", w.source, w.count, w.animal, w.scale, w.replaces, p.name as by, w.at,
            w.breakdown_id as "breakdownId", w.house_id as "houseId"
     from weighing w join person p on p.id = w.person_id where w.id = $1 and w.keyed_at = time_in($1)`,
    [id],
  );

type Also = Extract<WeighBody, { kind: 'take' }>['also'];

/** Whether the other of two that go together stands as it was asked for. */
async function isWritten(db: Sequelize, breakdownId: string, also: NonNullable<Also>): Promise<boolean> {
  const other = await stored(db, also.id);
  if (other === undefined || other.breakdownId !== breakdownId) return false;
  return also.kind === 'undo'
    ? other.massMg === null && other.replaces === also.replaces
    : other.massMg === also.massMg && other.destination === also.destination && other.count === also.count;
}

/** Why nothing was written: the first answer again when the key was used for exactly this, a refusal otherwise. */
async function whyNot(
  db: Sequelize,
  wanted: Weighing,
  breakdownId: string,
  judged: Judged,
  meant: string | undefined,
  also: Also,
): Promise<Weighing> {
  if (judged.house_id === null) throw new Problem('not_signed_in');
  if (meant !== undefined && judged.person_id !== meant) throw new Problem('other_person');
  if (!judged.allowed) throw new Problem('not_your_role');
  const first = await stored(db, wanted.id);
  if (first !== undefined) {
    const same =
      first.houseId === judged.house_id &&
      first.breakdownId === breakdownId &&
      first.pieceId === wanted.pieceId &&
      first.destination === wanted.destination &&
      first.massMg === wanted.massMg &&
      first.count === wanted.count &&
      first.replaces === wanted.replaces &&
      (also === null || (await isWritten(db, breakdownId, also)));
    if (!same) throw new Problem('key_reused');
    const { breakdownId: _b, houseId: _h, ...weighing } = first;
    return { ...weighing, at: first.at.toISOString() };
  }
  if (judged.state === null) throw new Problem('not_found', 'There is no such breakdown in this house.');
  if (judged.state !== 'open') throw new Problem('stage_closed');
  if (!judged.known)
    throw new Problem('invalid', 'This plan has no such piece.', [{ path: 'pieceId', message: 'not in this plan' }]);
  if (judged.refusal !== null) throw new Problem('tray_refused', `${judged.refusal}.`);
  const righted = [wanted.replaces, also?.kind === 'undo' ? also.replaces : null].filter((id) => id !== null);
  const replaced = await selectOne(
    db,
    'select 1 from weighing where replaces = any($1::uuid[]) and breakdown_id = $2',
    [righted, breakdownId],
  );
  if (replaced !== undefined) throw new Problem('already_replaced');
  throw new Problem('invalid', 'There is no such weight to put right.', [
    { path: 'replaces', message: 'not a weight of this breakdown' },
  ]);
}

/**
 * Takes a weight, puts one right or takes one back. Answers once it is on the disk. Its id is the client's key.
 * `tell` hears who it was as soon as that is known: the log wants it of refusals too.
 */
export async function weigh(
  services: Services,
  weigher: Weigher,
  id: string,
  breakdownId: string,
  body: WeighBody,
  tell: (actor: { readonly person: string; readonly house: string }) => void = () => undefined,
): Promise<Weighing> {
  const { db } = services;
  const take = body.kind === 'take' ? body : undefined;
  const known = 'sid' in weigher ? undefined : weigher;
  const wanted = {
    id,
    pieceId: take?.pieceId ?? null,
    destination: take?.destination ?? null,
    massMg: take?.massMg ?? null,
    source: take?.source ?? null,
    count: take?.count ?? 1,
    animal: take?.animal ?? null,
    scale: take?.scale ?? null,
    replaces: body.replaces,
    // a tablet whose clock runs ahead weighs now, not tomorrow
    at: new Date(Math.min(Date.parse(body.at), services.clock().getTime() + AHEAD_MS)).toISOString(),
  };
  await mustHaveRoom(services);
  const also = take?.also ?? null;
  if (also !== null && (also.id === id || (also.kind === 'undo' && also.replaces === wanted.replaces)))
    throw new Problem('invalid', undefined, [{ path: 'also', message: 'is the same weight' }]);
  const first: Row = {
    id,
    sid: 'sid' in weigher ? weigher.sid : null,
    house_id: known?.houseId ?? null,
    person_id: weigher.personId ?? null,
    breakdown_id: breakdownId,
    piece_id: wanted.pieceId,
    destination: wanted.destination,
    mass_mg: wanted.massMg,
    source: wanted.source,
    replaces: wanted.replaces,
    at: wanted.at,
    count: wanted.count,
    animal: wanted.animal,
    scale: wanted.scale,
    pair: also?.id ?? null,
  };
  const judged = await sharedCommits(db).write(
    also === null
      ? [first]
      : [
          first,
          also.kind === 'take'
            ? { ...first, ...also, mass_mg: also.massMg, replaces: null, pair: id }
            : {
                ...first,
                id: also.id,
                piece_id: null,
                destination: null,
                mass_mg: null,
                source: null,
                count: 1,
                animal: null,
                scale: null,
                replaces: also.replaces,
                pair: id,
              },
        ],
  );
  if (judged.person_id !== null && judged.house_id !== null) tell({ person: judged.person_id, house: judged.house_id });
  const weighing: Weighing = { ...wanted, by: known?.name ?? judged.person ?? '' };
  if (!judged.written) return whyNot(db, weighing, breakdownId, judged, weigher.personId, also);
  if (judged.house_id !== null) services.announce(judged.house_id, ['breakdowns'], [breakdownId]);
  return weighing;
}
