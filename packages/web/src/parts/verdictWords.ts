import type { Verdict } from '@zabrik/core';

/** A verdict as a log says it. */
export const verdictWords: Readonly<Record<Verdict, string>> = {
  within: 'Within the limit you selected',
  outside: 'Outside the limit you selected',
  open: 'Still open',
  'not-shown': 'Not shown to be within',
  'not-judged': 'Not judged',
};

/** How a verdict looks: green only where the readings show it. */
export const verdictTone = (verdict: Verdict): string =>
  verdict === 'outside' || verdict === 'not-shown' ? 'text-alarm' : verdict === 'within' ? 'text-calm' : '';
