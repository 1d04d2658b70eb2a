/** How often an address has tried to sign in, counted where every server process sees it. The shape is rate-limiter-flexible's. */
export const triesCounted = {
  name: '0025-tries-counted',
  up: `
create unlogged table rate_limit (
  key varchar(255) primary key,
  points integer not null default 0,
  expire bigint
);`,
};
