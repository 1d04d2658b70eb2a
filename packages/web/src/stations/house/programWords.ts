import type { Hook, HookTopic, Token, TokenScope } from '@zabrik/contract';
import { dayAndTime, dayOfYear } from '../../app/dates.ts';

export const scopeNames: Readonly<Record<TokenScope, string>> = {
  read: 'read',
  work: 'read, and give commands',
};
export const topicNames: Readonly<Record<HookTopic, string>> = {
  movement: 'whatever moves',
  'used-up': 'a lot that is used up',
};

/** "read · Maren Ostle · until Mon 30 Nov 2026 · last used today 09:12". */
export function tokenWords(token: Token, now: Date): string {
  const over =
    token.endedAt !== null
      ? `taken back ${dayAndTime(token.endedAt)}`
      : token.until <= now.toISOString()
        ? `ran out ${dayOfYear(token.until)}`
        : `until ${dayOfYear(token.until)}`;
  const used = token.usedAt === null ? 'never used' : `last used ${dayAndTime(token.usedAt)}`;
  return [scopeNames[token.scope], token.by, over, used].join(' · ');
}

/** How the calls to an address go: never better than the last one went. */
export function callsWords(hook: Hook): string {
  const parts = [
    hook.lastWhy !== null
      ? `The last call did not get through. ${hook.lastWhy}`
      : hook.lastOkAt === null
        ? 'Not called yet.'
        : `Got through ${dayAndTime(hook.lastOkAt)}.`,
    ...(hook.waiting > 0 ? [`${hook.waiting} ${hook.waiting === 1 ? 'waits' : 'wait'} to be sent.`] : []),
    ...(hook.givenUp > 0 ? [`${hook.givenUp} given up in the last week.`] : []),
  ];
  return parts.join(' ');
}
