import type { Transaction } from 'sequelize';
import { Problem } from '../http/problem.ts';
import { HouseRow } from './models.ts';

/** The house's own settings. Every station may ask. */
export async function readHouse(houseId: string, transaction?: Transaction): Promise<HouseRow> {
  const house = await HouseRow.findByPk(houseId, transaction === undefined ? {} : { transaction });
  if (house === null) throw new Problem('not_found');
  return house;
}

/** The calendar day of an instant in the house's own time zone, YYYY-MM-DD. */
export const dayIn = (timezone: string, at: Date): string =>
  new Intl.DateTimeFormat('en-CA', { timeZone: timezone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(
    at,
  );

/** The day that many hours later, and never beyond `latest` where there is one: what is made of a thing does not outlive it. */
export function lastDayAfter(timezone: string, at: Date, hours: number, latest: string | null): string {
  const day = dayIn(timezone, new Date(at.getTime() + hours * 3_600_000));
  return latest !== null && latest < day ? latest : day;
}
