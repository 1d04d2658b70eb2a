import type { Sequelize } from 'sequelize';

/** A tablet that was away for a fortnight repeats what it was not answered; twice that is enough. */
const KEPT_DAYS = 30;
const AT_ONCE = 5_000;
const EVERY_MS = 3_600_000;
/** One server process of a database does it at a time. */
const ONE_THINNER = 7_261_180_943;

/** Forgets what old commands were answered, a few thousand at a time. Their keys stay: none is ever done twice. Answers how many. */
export async function thinAnswers(db: Sequelize, now: Date): Promise<number> {
  let thinned = 0;
  for (;;) {
    const done = await db.transaction(async (transaction) => {
      const [, meta] = await db.query(
        `update command set answer = null where id in (
           select id from command where answer is not null and at < $1::timestamptz - make_interval(days => $2)
             and pg_try_advisory_xact_lock($4) order by at limit $3)`,
        { bind: [now, KEPT_DAYS, AT_ONCE, ONE_THINNER], transaction },
      );
      return (meta as { readonly rowCount: number | null }).rowCount ?? 0;
    });
    thinned += done;
    if (done < AT_ONCE) return thinned;
  }
}

/** Does so every hour. Gives the way to stop. */
export function keepThin(db: Sequelize, clock: () => Date, failed: (error: unknown) => void): () => void {
  const timer = setInterval(() => void thinAnswers(db, clock()).catch(failed), EVERY_MS);
  timer.unref();
  return () => clearInterval(timer);
}
