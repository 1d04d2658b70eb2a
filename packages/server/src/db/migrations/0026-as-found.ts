/** How what lay on the bench differed from what its plan expected: pieces it came without, pieces the plan does not know, what was brought to them. And vegetables are trimmed. */
export const asFound = {
  name: '0026-as-found',
  up: `
alter table breakdown add column found jsonb not null default '{"others": [], "cameWithout": {}}'::jsonb;
alter table breakdown_input add column brought boolean not null default false;
alter table breakdown_piece add column brought_mg bigint not null default 0 check (brought_mg >= 0);
alter table movement drop constraint movement_kind_check;
alter table movement add constraint movement_kind_check
  check (kind in ('receive', 'close-stage', 'cut', 'batch', 'take-out', 'reverse', 'split', 'merge', 'fill', 'count', 'trim'));`,
};
