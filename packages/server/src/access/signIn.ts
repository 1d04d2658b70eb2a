import type { Sequelize } from 'sequelize';
import { selectOne } from '../db/select.ts';
import { Problem } from '../http/problem.ts';
import type { Who } from '../kitchen.ts';
import { secretFits } from './secrets.ts';

const WRONG_ALLOWED = 5;
const LOCK_MINUTES = 5;

interface PersonAtDoor {
  readonly id: string;
  readonly house_id: string;
  readonly name: string;
  readonly role: Who['role'];
  readonly pin_hash: string;
  readonly password_hash: string | null;
  readonly locked_until: Date | null;
  readonly timezone: string;
}

const clockTime = (at: Date, timezone: string): string =>
  new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: timezone }).format(at);

/**
 * Lets a person in by PIN or password.
 *
 * Five wrong ones lock the person out for five minutes, counted in the database so that every server process counts alike.
 * Errors  `wrong_secret`, with how many tries are left; `locked_out`, with the time it opens again.
 */
export async function signIn(
  db: Sequelize,
  now: Date,
  personId: string,
  secret: { readonly pin: string } | { readonly password: string },
): Promise<Who> {
  const person = await selectOne<PersonAtDoor>(
    db,
    `select p.id, p.house_id, p.name, p.role, p.pin_hash, p.password_hash, p.locked_until, h.timezone
     from person p join house h on h.id = p.house_id where p.id = $1`,
    [personId],
  );
  if (person === undefined) throw new Problem('wrong_secret');
  const lockedOut = (until: Date): Problem =>
    new Problem(
      'locked_out',
      `Too many wrong PINs. Try again at ${clockTime(until, person.timezone)}, or ask the head chef.`,
    );
  if (person.locked_until !== null && person.locked_until > now) throw lockedOut(person.locked_until);
  const [stored, given] = 'pin' in secret ? [person.pin_hash, secret.pin] : [person.password_hash, secret.password];
  if (stored !== null && (await secretFits(stored, given))) {
    await db.query(
      'update person set wrong_count = 0, locked_until = null where id = $1 and (wrong_count > 0 or locked_until is not null)',
      {
        bind: [person.id],
      },
    );
    return { personId: person.id, houseId: person.house_id, name: person.name, role: person.role };
  }
  const until = new Date(now.getTime() + LOCK_MINUTES * 60_000);
  const counted = await selectOne<{ wrong_count: number; locked_until: Date | null }>(
    db,
    `update person set
       wrong_count = case when wrong_count + 1 >= $2 then 0 else wrong_count + 1 end,
       locked_until = case when wrong_count + 1 >= $2 then $3::timestamptz else locked_until end
     where id = $1 returning wrong_count, locked_until`,
    [person.id, WRONG_ALLOWED, until],
  );
  if (counted?.locked_until != null && counted.locked_until > now) throw lockedOut(counted.locked_until);
  const left = WRONG_ALLOWED - (counted?.wrong_count ?? 0);
  const what = 'pin' in secret ? 'PIN' : 'password';
  throw new Problem(
    'wrong_secret',
    `Not the ${what} of ${person.name}. ${left} ${left === 1 ? 'try' : 'tries'} left before a pause.`,
  );
}
