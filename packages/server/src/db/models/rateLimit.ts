import { big, filled, key, orNull, table, text, whole } from '../table.ts';

/** How often an address has tried to sign in of late. */
export const RateLimitTable = table(
  'rate_limit',
  {
    key: key(text()),
    points: filled(whole),
    expire: orNull(big),
  },
  { notInFile: 'tries at this server’s doors' },
);
