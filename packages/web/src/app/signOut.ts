/** Signing out of a tablet that cannot reach its server: the session is ended as soon as it can, and nobody is let in by it meanwhile. */
import { call, Refused } from './api.ts';
import { api } from './endpoints.ts';

const OWED = 'zabrik-sign-out-owed';

const isOwed = (): boolean => {
  try {
    return localStorage.getItem(OWED) !== null;
  } catch {
    return false;
  }
};
const note = (owed: boolean): void => {
  try {
    if (owed) localStorage.setItem(OWED, '1');
    else localStorage.removeItem(OWED);
  } catch {
    // no storage: it is owed as long as the page stands
  }
};

/** Ends the session, or writes down that it is to be ended. */
export async function signOut(): Promise<void> {
  note(true);
  try {
    await call(api.access.signOut, {});
    note(false);
  } catch (error) {
    // signed out already is signed out
    if (error instanceof Refused && error.status === 401) note(false);
  }
}

/** Whether someone has signed out here and the server has not heard of it: then nobody is signed in, whatever the server says. Tries again. */
export async function signedOutHere(): Promise<boolean> {
  if (!isOwed()) return false;
  await signOut();
  return true;
}

/** Someone has signed in anew: the session before is gone. */
export const signedInAnew = (): void => note(false);
