import { addDays, type Place, type PlaceKind } from '@zabrik/core';
import type { Sequelize } from 'sequelize';
import { Problem } from '../http/problem.ts';
import { type HouseRow, HouseTable } from './models/house.ts';
import { type HouseScope, rowsOf } from './rows.ts';

/** The house's own settings. Every station may ask. */
export async function readHouse(db: Sequelize, scope: HouseScope): Promise<HouseRow> {
  const house = await rowsOf(db, HouseTable, scope).one({});
  if (house === undefined) throw new Problem('not_found');
  return house;
}

/** The calendar day of an instant in the house's own time zone, YYYY-MM-DD. */
export const dayIn = (timezone: string, at: Date): string =>
  new Intl.DateTimeFormat('en-CA', { timeZone: timezone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(
    at,
  );

/** The weekday, Monday 1 to Sunday 7, and the time of day, HH:MM, of an instant in the house's own time zone. */
export function clockIn(timezone: string, at: Date): { readonly weekday: number; readonly time: string } {
  const time = new Intl.DateTimeFormat('en-GB', { timeZone: timezone, hour: '2-digit', minute: '2-digit' }).format(at);
  const day = new Date(`${dayIn(timezone, at)}T00:00:00Z`).getUTCDay();
  return { weekday: day === 0 ? 7 : day, time };
}

/**
 * The day that many hours later, and never beyond `latest` where there is one: what is made of a thing does not outlive it. Whole days are
 * counted in the calendar, whatever the clocks do meanwhile; only what is left over is counted in hours.
 *
 * @example Saturday 27 March 2027 23:30 in London and 24 hours -> Sunday 28 March, though that night has an hour less
 */
export function lastDayAfter(timezone: string, at: Date, hours: number, latest: string | null): string {
  const days = Math.floor(hours / 24);
  const day = addDays(dayIn(timezone, new Date(at.getTime() + (hours - 24 * days) * 3_600_000)), days);
  return latest !== null && latest < day ? latest : day;
}

const usualPlaces: readonly Place[] = [
  { id: 'cold-room', name: 'Cold room', kind: 'cold-room', holds: 'raw' },
  { id: 'fridge', name: 'Ready fridge', kind: 'fridge', holds: 'ready' },
  { id: 'freezer', name: 'Freezer', kind: 'freezer', holds: 'any' },
  { id: 'blast-chiller', name: 'Blast chiller', kind: 'blast-chiller', holds: 'any' },
  { id: 'dry-store', name: 'Dry store', kind: 'ambient', holds: 'any' },
];

export const placesOf = (house: HouseRow): readonly Place[] => house.settings.places ?? usualPlaces;

/** The place of that name. Errors: `invalid`, naming the field. */
export function placeNamed(house: HouseRow, placeId: string): Place {
  const place = placesOf(house).find((p) => p.id === placeId);
  if (place === undefined)
    throw new Problem('invalid', 'This house has no such place.', [{ path: 'placeId', message: 'no such place' }]);
  return place;
}

/** Where a new thing goes when nobody says: raw among raw, ready among ready, and what needs no cold on the shelf. */
export function usualPlace(house: HouseRow, ready: boolean, kind: PlaceKind | null = null): string {
  const places = placesOf(house);
  const mine = (p: Place): boolean => p.holds === 'any' || p.holds === (ready ? 'ready' : 'raw');
  const cold = (p: Place): boolean => p.kind === 'cold-room' || p.kind === 'fridge';
  const found =
    (kind === null ? undefined : places.find((p) => p.kind === kind && mine(p))) ??
    places.find((p) => cold(p) && p.holds === (ready ? 'ready' : 'raw')) ??
    places.find((p) => cold(p) && mine(p)) ??
    places.find(cold) ??
    places[0];
  if (found === undefined) throw new Error(`house ${house.id} has no place at all`);
  return found.id;
}

export const toleranceOf = (house: HouseRow): { readonly share: number; readonly massMg: number } =>
  house.settings.tolerance ?? { share: 0.01, massMg: 10_000 };
