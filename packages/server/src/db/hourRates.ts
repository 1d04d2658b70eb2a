import type { Sequelize } from 'sequelize';
import type { HouseRow } from './models/house.ts';
import { PersonTable } from './models/person.ts';
import { type HouseScope, rowsOf } from './rows.ts';
import { select } from './select.ts';

interface Told {
  readonly name: string;
  readonly hourlyMinor: number | null;
}
type Change =
  | { readonly what: 'person'; readonly before: Told | null; readonly after: Told }
  | { readonly what: 'labourMinorPerHour'; readonly before: number | null };

/**
 * What an hour of each person cost: their own, else the house's; undefined where neither had been said.
 *
 * `at`: as it was at that moment, by what was written down when it changed since; left out, as it is now.
 */
export async function hourRates(
  db: Sequelize,
  scope: HouseScope,
  house: HouseRow,
  at?: Date,
): Promise<(personId: string) => number | undefined> {
  const people = await rowsOf(db, PersonTable, scope).all({});
  const own = new Map(people.map((p) => [p.id, p.hourlyMinor]));
  let houses: number | undefined = house.settings.labourMinorPerHour;
  if (at !== undefined) {
    const names = new Map(people.map((p) => [p.id, p.name]));
    const since = await select<Change>(
      db,
      `select what, before, after from setting_change
       where house_id = $1 and what in ('person', 'labourMinorPerHour') and at > $2 order by at desc, id desc`,
      [house.id, at],
    );
    // back from today: the change written down names its person as they were called after it
    for (const change of since) {
      if (change.what === 'labourMinorPerHour') houses = change.before ?? undefined;
      else if (change.before !== null) {
        const { name, hourlyMinor } = change.before;
        for (const [id, called] of names)
          if (called === change.after.name) {
            own.set(id, hourlyMinor);
            names.set(id, name);
          }
      }
    }
  }
  return (personId) => own.get(personId) ?? houses;
}
