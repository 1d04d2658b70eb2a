/** What was let go on this tablet without reaching the records, and why: kept here, so that someone can ask. */
import type { Waiting } from '../../app/outbox.ts';

export interface LetGo {
  readonly key: string;
  readonly at: number;
  readonly says: string;
  readonly by: string;
  readonly why: string;
}

const SHELF = 'zabrik-let-go';
const MOST = 100;

export function letGoHere(): readonly LetGo[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(SHELF) ?? '[]');
    return Array.isArray(kept) ? (kept as LetGo[]) : [];
  } catch {
    return [];
  }
}

/** Writes down that something was let go. Errors: none; a full disk keeps the shorter list. */
export function noteLetGo(waiting: Waiting, why: string, by: string, at: number): void {
  const now = [{ key: waiting.key, at, says: waiting.says, by, why }, ...letGoHere()].slice(0, MOST);
  try {
    localStorage.setItem(SHELF, JSON.stringify(now));
  } catch {
    // it is let go all the same: the person has read it
  }
}
