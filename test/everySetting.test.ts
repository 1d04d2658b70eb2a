/** A walk of the contract: what a house can set has a place on a screen, and what can be asked of the server is asked by one. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { api, settingsSchema } from '@zabrik/contract';
import { expect, it } from 'vitest';

const web = join(import.meta.dirname, '../packages/web/src');
const sources = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((path) => /\.tsx?$/.test(path) && !path.includes('.test.'))
    .map((path) => readFileSync(join(folder, path), 'utf8'));
const house = sources(join(web, 'stations/house')).join('\n');
const everything = sources(web).join('\n');

it('every setting of the house stands in a form of the house, and has a name where changes are told', () => {
  const settings = Object.keys(settingsSchema.shape);
  expect(settings.length).toBeGreaterThan(15);
  const names = readFileSync(join(web, 'stations/house/changeWords.ts'), 'utf8');
  // sent by name in a form that saves: as a key, or as a whole list
  expect(settings.filter((s) => !new RegExp(`\\b${s}\\b\\s*[:,}]`).test(house.replace(names, '')))).toEqual([]);
  expect(settings.filter((s) => !new RegExp(`^  ${s}:`, 'm').test(names))).toEqual([]);
});

it('every command of the contract is given by a screen', () => {
  const commands = Object.entries(api).flatMap(([station, endpoints]) =>
    Object.entries(endpoints).flatMap(([name, e]) => (e.method === 'get' ? [] : [`api.${station}.${name}`])),
  );
  expect(commands.length).toBeGreaterThan(60);
  const given = (c: string): boolean => new RegExp(`\\b${c.replaceAll('.', '\\.')}\\b`).test(everything);
  // a stage is opened again by taking its closing entry back: the same, by another name
  expect(commands.filter((c) => !given(c))).toEqual(['api.bench.reopen']);
});
