/** What a lot and a batch are to the limits: which shelf life set a date, whether game was wild, what is raw in a pot, in what state a batch is kept. */
export const judgedByWhatItIs = {
  name: '0010-judged-by-what-it-is',
  up: `
alter table lot add column date_limit text, add column date_max_c numeric, add column raised text check (raised in ('wild', 'farmed'));
alter table run add column foods jsonb not null default '["unknown"]';

-- recipes said how they keep in words only
create function kept_as(u jsonb) returns jsonb language sql immutable as $$
  select case when u ? 'keeps' then u || jsonb_build_object('keeps', coalesce((
    select jsonb_agg(case when k ? 'as' then k else k || jsonb_build_object('as', case
      when k ->> 'state' ilike '%frozen%' then 'frozen'
      when k ->> 'state' ilike '%vacuum%' then 'vacuum'
      when k ->> 'state' ilike '%under fat%' then 'under-fat'
      when k ->> 'state' ilike '%hot%' then 'hot'
      when k ->> 'state' ilike '%dry%' or k ->> 'state' ilike '%ambient%' then 'dry'
      when k ->> 'state' ilike '%cured%' then 'cured'
      when k ->> 'state' ilike 'raw%' then 'raw'
      else 'chilled' end) end)
    from jsonb_array_elements(u -> 'keeps') k), '[]')) else u end $$;
update run set use = kept_as(use);
alter table house_use disable trigger house_use_append_only;
update house_use set body = kept_as(body);
alter table house_use enable trigger house_use_append_only;
drop function kept_as(jsonb);`,
} as const;
