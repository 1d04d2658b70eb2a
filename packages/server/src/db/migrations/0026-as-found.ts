/** How what lay on the bench differed from what its plan expected: pieces it came without, pieces the plan does not know. And vegetables are trimmed. */
export const asFound = {
  name: '0026-as-found',
  up: `
alter table breakdown add column found jsonb not null default '{"others": [], "cameWithout": {}}'::jsonb;
alter table movement drop constraint movement_kind_check;
alter table movement add constraint movement_kind_check
  check (kind in ('receive', 'close-stage', 'cut', 'batch', 'take-out', 'reverse', 'split', 'merge', 'fill', 'count', 'trim'));`,
};
