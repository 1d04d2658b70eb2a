/** How what lay on the bench differed from what its plan expected: pieces it came without, pieces the plan does not know. */
export const asFound = {
  name: '0026-as-found',
  up: `alter table breakdown add column found jsonb not null default '{"others": [], "cameWithout": {}}'::jsonb;`,
};
