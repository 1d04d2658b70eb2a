/** A hold travels to what is made of the lot: which lot it came from is kept, so that letting that one go lets go what it held. */
export const holdsTravel = {
  name: '0013-holds-travel',
  up: `
alter table lot add column held_from uuid references lot (id) deferrable initially deferred;
alter table lot add constraint lot_held_from_is_held check (held_from is null or held is not null);
create index lot_held_from on lot (held_from) where held_from is not null;`,
} as const;
