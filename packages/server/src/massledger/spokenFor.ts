/** SQL of what of a lot is on a bench, under the knife or promised to a pot; `lot` is an expression for its id. */
export const spokenFor = (lot: string): string => `(
  coalesce((select sum(i.mass_mg) from breakdown_input i join breakdown o on o.id = i.breakdown_id where i.lot_id = ${lot} and o.state = 'open'), 0)
  + coalesce((select sum(i.mass_mg) from cutting_input i join cutting o on o.id = i.cutting_id where i.lot_id = ${lot} and o.state = 'open'), 0)
  + coalesce((select sum(i.mass_mg) from run_input i join run r on r.id = i.run_id where i.lot_id = ${lot} and r.state in ('planned', 'on')), 0))::bigint`;
