/**
 * A promise says how many pieces it is of where somebody counted them: of two hake with one on a bench, one is left, whatever each weighs. As with
 * a posting, what nobody counted goes as the mass does. Whole animals on a bench when this runs are counted by their breakdown.
 */
export const piecesReserved = {
  name: '0033-pieces-reserved',
  up: `
alter table reservation add column pieces integer check (pieces > 0);
alter table lot_balance add column reserved_pieces integer not null default 0 check (reserved_pieces >= 0);

create function pieces_promised(promised reservation) returns integer language sql stable as $$
  select coalesce(promised.pieces, round(l.pieces * promised.mass_mg::numeric / greatest(1, l.made_mg))::int) from lot l where l.id = promised.lot_id
$$;
create or replace function keep_reserved() returns trigger language plpgsql as $$
begin
  if tg_op = 'DELETE' then
    update lot_balance set reserved_mg = reserved_mg - old.mass_mg, reserved_pieces = reserved_pieces - pieces_promised(old) where lot_id = old.lot_id;
    return null;
  end if;
  update lot_balance set reserved_mg = reserved_mg + new.mass_mg, reserved_pieces = reserved_pieces + pieces_promised(new)
    where lot_id = new.lot_id and reserved_mg + new.mass_mg <= mass_mg;
  if not found then
    raise exception 'lot % has no % mg left to be reserved', new.lot_id, new.mass_mg using errcode = 'ZB003';
  end if;
  return null;
end $$;

alter table reservation disable trigger reservation_unchanged;
update reservation r set pieces = o.animals from breakdown o, lot l
  where r.holder_kind = 'breakdown' and o.id = r.holder_id and o.lot_id = r.lot_id and o.root_id = o.id and l.id = r.lot_id and o.animals <= l.pieces;
alter table reservation enable trigger reservation_unchanged;
update lot_balance b set reserved_pieces = r.pieces
  from (select p.lot_id, sum(pieces_promised(p))::int as pieces from reservation p group by 1) r where r.lot_id = b.lot_id;`,
} as const;
