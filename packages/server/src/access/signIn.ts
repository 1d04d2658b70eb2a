import { createHash } from 'node:crypto';
import type { Sequelize } from 'sequelize';
import { DeviceTable } from '../db/models/device.ts';
import { SignInTryTable } from '../db/models/signInTry.ts';
import { rowsOf, serverRows } from '../db/rows.ts';
import { selectOne } from '../db/select.ts';
import type { RowOf } from '../db/table.ts';
import { Problem } from '../http/problem.ts';
import type { Actor } from '../services.ts';
import { secretFits } from './secrets.ts';

const WRONG_ALLOWED = 5;
const FIRST_PAUSE_MINUTES = 5;
const LONGEST_PAUSE_MINUTES = 60;
/** Where all who are not known to the house stand together. */
const STREET = 'street';

interface PersonSigningIn {
  readonly id: string;
  readonly house_id: string;
  readonly name: string;
  readonly role: Actor['role'];
  readonly pin_hash: string | null;
  readonly password_hash: string | null;
  readonly timezone: string;
}

const clockTime = (at: Date, timezone: string): string =>
  new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: timezone }).format(at);

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** The door a device stands at: its own where someone of the house has signed in on it before, else the street. */
async function streetOf(db: Sequelize, houseId: string, token: string | undefined): Promise<string> {
  return (await deviceRow(db, houseId, token))?.id ?? STREET;
}

/** Writes down that a device is one of the house. What it holds is its token; here stands only what tells it again. */
export async function rememberDevice(db: Sequelize, houseId: string, token: string, now: Date): Promise<void> {
  const devices = rowsOf(db, DeviceTable, { houseId });
  await devices.addMissing([{ id: hashOf(token) }]);
  await devices.change({ id: hashOf(token) }, { seenAt: now });
}

/** What stands in the records of a device, by the token it holds; undefined for one that is not of the house. */
export const deviceRow = async (
  db: Sequelize,
  houseId: string,
  token: string | undefined,
): Promise<RowOf<typeof DeviceTable> | undefined> =>
  token === undefined ? undefined : rowsOf(db, DeviceTable, { houseId }).one({ id: hashOf(token) });

/**
 * Lets a person in by PIN or password.
 *
 * A try is taken before the secret is looked at, so that forty at once are five tries. Five wrong ones at a door pause it for that person
 * and that kind of secret: five minutes, then twice as long each time, an hour at most. Counted in the database: every server process
 * counts alike.
 *
 * Errors  `wrong_secret`, with how many tries are left; `locked_out`, with the time it opens again.
 */
export async function signIn(
  db: Sequelize,
  now: Date,
  personId: string,
  secret: { readonly pin: string } | { readonly password: string },
  token?: string,
): Promise<Actor> {
  const person = await selectOne<PersonSigningIn>(
    db,
    `select p.id, p.house_id, p.name, p.role, p.pin_hash, p.password_hash, h.timezone
     from person p join house h on h.id = p.house_id where p.id = $1 and p.left_at is null`,
    [personId],
  );
  if (person === undefined) throw new Problem('wrong_secret');
  const kind = 'pin' in secret ? 'pin' : 'password';
  const here = { personId: person.id, door: await streetOf(db, person.house_id, token), secret: kind } as const;
  const tries = serverRows(db, SignInTryTable);
  const lockedOut = (until: Date | null | undefined): Problem =>
    new Problem(
      'locked_out',
      `Too many wrong ${kind === 'pin' ? 'PINs' : 'passwords'}. Try again at ${clockTime(until ?? now, person.timezone)}, or ask the head chef.`,
    );
  const taken = await selectOne<{ wrong: number; locked_until: Date | null }>(
    db,
    `insert into sign_in_try as t (person_id, door, secret, wrong) values ($1, $2, $3, 1)
     on conflict (person_id, door, secret) do update set
       wrong = case when t.wrong >= $5 then 1 else t.wrong + 1 end,
       pauses = t.pauses + case when t.wrong + 1 = $5 then 1 else 0 end,
       locked_until = case when t.wrong + 1 = $5
         then $4::timestamptz + make_interval(mins => least($7, $6 * (2 ^ t.pauses)::int)) else null end
     where t.locked_until is null or t.locked_until <= $4::timestamptz
     returning wrong, locked_until`,
    [...Object.values(here), now, WRONG_ALLOWED, FIRST_PAUSE_MINUTES, LONGEST_PAUSE_MINUTES],
  );
  if (taken === undefined) {
    throw lockedOut((await tries.one(here))?.lockedUntil);
  }
  const [stored, given] = 'pin' in secret ? [person.pin_hash, secret.pin] : [person.password_hash, secret.password];
  if (stored !== null && (await secretFits(stored, given))) {
    await tries.remove(here);
    return { personId: person.id, houseId: person.house_id, name: person.name, role: person.role };
  }
  if (taken.locked_until !== null) throw lockedOut(taken.locked_until);
  const left = WRONG_ALLOWED - taken.wrong;
  throw new Problem(
    'wrong_secret',
    `Not the ${kind === 'pin' ? 'PIN' : 'password'} of ${person.name}. ${left} ${left === 1 ? 'try' : 'tries'} left before a pause.`,
  );
}
