/**
 * What is agreed with a supplier: whom to call, on which days until when, what an order must come to, what they call and pack things. Changed on the
 * screens, so it counts its versions; one that is bought from no more keeps its name in the books. A batch remembers what of it nobody had a price for.
 */
export const whatSuppliersSay = {
  name: '0034-what-suppliers-say',
  up: `
alter table supplier
  add column terms jsonb not null default '{}',
  add column version integer not null default 1,
  add column retired_at timestamptz;
alter table batch add column unpriced text[] not null default '{}';`,
} as const;
