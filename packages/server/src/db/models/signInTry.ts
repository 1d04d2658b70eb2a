import { filled, key, orNull, table, text, uuid, when, whole } from '../table.ts';

/** Wrong secrets at a door, and how long it stays shut. */
export const SignInTryTable = table(
  'sign_in_try',
  {
    personId: key(uuid),
    door: key(text()),
    secret: key(text<'pin' | 'password'>()),
    wrong: whole,
    pauses: filled(whole),
    lockedUntil: orNull(when),
  },
  { notInFile: 'wrong PINs at this server’s doors' },
);
