/**
 * A breakdown names the plan it was begun with and a batch what it was made by, instead of each carrying a copy (5.6 kB a row): the same plan is
 * worked hundreds of times. What is kept is the plan as worked, for this form and this animal, and is never changed; its id follows from its words.
 */
export const versionsKept = {
  name: '0021-versions-kept',
  up: `
create table plan_version (
  house_id uuid not null references house (id),
  id text not null,
  plan jsonb not null,
  primary key (house_id, id)
);
create table recipe_version (
  house_id uuid not null references house (id),
  id text not null,
  recipe jsonb not null,
  primary key (house_id, id)
);
create function words_id(words jsonb) returns text language sql immutable strict as
  $$ select encode(sha256(convert_to(words::text, 'UTF8')), 'hex') $$;

insert into plan_version (house_id, id, plan) select distinct house_id, words_id(plan), plan from breakdown;
insert into recipe_version (house_id, id, recipe) select distinct house_id, words_id(use), use from run;
alter table breakdown add column plan_version text;
alter table run add column recipe_version text;
update breakdown set plan_version = words_id(plan);
update run set recipe_version = words_id(use);
alter table breakdown alter column plan_version set not null, drop column plan,
  add foreign key (house_id, plan_version) references plan_version (house_id, id);
alter table run alter column recipe_version set not null, drop column use,
  add foreign key (house_id, recipe_version) references recipe_version (house_id, id);

create function refuse_version_change() returns trigger language plpgsql as $$
begin
  raise exception 'what work was done by is never changed' using errcode = 'ZB001';
end $$;
create trigger plan_version_unchanged before update or delete on plan_version for each row execute function refuse_version_change();
create trigger plan_version_no_truncate before truncate on plan_version for each statement execute function refuse_version_change();
create trigger recipe_version_unchanged before update or delete on recipe_version for each row execute function refuse_version_change();
create trigger recipe_version_no_truncate before truncate on recipe_version for each statement execute function refuse_version_change();`,
} as const;
