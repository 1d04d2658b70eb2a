import { statfs } from 'node:fs/promises';
import type { Sequelize } from 'sequelize';
import { selectOne } from './select.ts';

/** How old an answer may be: a look costs microseconds, and a weighing should not wait for one. */
const FRESH_MS = 1_000;

/** Whether there is room on the disk the records lie on, as far as this machine can see it. */
export class Disk {
  readonly #db: Sequelize;
  readonly #leave: number;
  #path: string | null | undefined;
  #lookedAt = 0;
  #full = false;

  /** `leave`: bytes that must stay free. A database that cannot write its log ends itself, and would take the readers along. */
  constructor(db: Sequelize, leave: number) {
    this.#db = db;
    this.#leave = leave;
  }

  /** True when writing has to stop. Where the records lie on another machine nothing is known here, and the database says it itself. */
  async isFull(now = Date.now()): Promise<boolean> {
    if (now - this.#lookedAt < FRESH_MS) return this.#full;
    this.#lookedAt = now;
    if (this.#path === undefined)
      this.#path = await selectOne<{ path: string }>(
        this.#db,
        `select current_setting('data_directory') as path`,
        [],
      ).then(
        (row) => row?.path ?? null,
        () => undefined, // the database is away just now: asked again at the next look
      );
    if (this.#path == null) return this.#full;
    const seen = await statfs(this.#path).catch(() => undefined);
    this.#full = seen !== undefined && seen.bavail * seen.bsize < this.#leave;
    return this.#full;
  }
}
