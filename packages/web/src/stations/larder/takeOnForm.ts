/** What lay there already, as it is typed, and what is sent of it. */
import type { Ask } from '@zabrik/contract';
import { z } from 'zod';
import type { api } from '../../app/endpoints.ts';
import { aPriceOrNothing, aWeight } from '../../kit/fieldReaders.ts';

type Body = Ask<typeof api.larder.takeOn>['body'];

export const nothingYet = {
  as: 'bought' as 'bought' | 'piece',
  bought: '',
  species: '',
  category: '',
  name: '',
  ready: false,
  mass: '',
  pieces: '1',
  useBy: '',
  frozen: false,
  cost: '',
  note: '',
};

/** `shelf`: goods that may have no date. */
export const takeOnForm = (currency: string, shelf: ReadonlySet<string>) =>
  z
    .object({
      as: z.enum(['bought', 'piece']),
      bought: z.string(),
      species: z.string(),
      category: z.string(),
      name: z.string().trim().max(60),
      ready: z.boolean(),
      mass: aWeight('What it weighs'),
      pieces: z.string().regex(/^[1-9]\d{0,3}$/, 'A whole number'),
      useBy: z.string(),
      frozen: z.boolean(),
      cost: aPriceOrNothing(currency),
      note: z.string().trim().max(500),
    })
    .transform((said, context): Omit<Body, 'placeId' | 'confirmed'> => {
      const wrong = (path: keyof typeof said, message: string): void =>
        context.addIssue({ code: 'custom', path: [path], message });
      const [first = '', second = ''] = said.bought.split('/');
      if (said.as === 'bought' && second === '') wrong('bought', 'What it is');
      if (said.as === 'piece') {
        if (said.species === '') wrong('species', 'Of which animal');
        if (said.category === '') wrong('category', 'Which kind of piece');
        if (said.name === '') wrong('name', 'What it is called');
      }
      const mayLackDate = said.as === 'bought' && first === 'goods' && shelf.has(second);
      if (said.useBy === '' && !mayLackDate) wrong('useBy', 'Until when it keeps');
      const what: Body['what'] =
        said.as === 'piece'
          ? { kind: 'piece', species: said.species, category: said.category, name: said.name, ready: said.ready }
          : first === 'goods'
            ? { kind: 'goods', goods: second }
            : { kind: 'bought', species: first, form: second };
      return {
        what,
        massMg: said.mass,
        pieces: Number(said.pieces),
        useBy: said.useBy === '' ? null : said.useBy,
        frozen: said.frozen,
        costMinor: said.cost,
        note: said.note === '' ? null : said.note,
      };
    });
