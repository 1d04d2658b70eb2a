import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import { id, nothing, shortText, slug } from '../fields.ts';
import { roles } from '../roles.ts';
import { routes } from '../routes.ts';

const person = z.strictObject({ id, name: shortText, role: z.enum(roles) });
export const meSchema = z.strictObject({ person, house: z.strictObject({ id, slug, name: shortText }) });
export type Me = z.output<typeof meSchema>;

const pin = z.string().regex(/^\d{4,6}$/, 'four to six digits');

export const access = {
  houses: endpoint({
    ...routes.access.houses,
    summary: 'The houses on this machine',
    answer: z.strictObject({ houses: z.array(z.strictObject({ slug, name: shortText })) }),
    open: true,
  }),
  door: endpoint({
    ...routes.access.door,
    summary: 'Who can sign in to a house',
    params: z.strictObject({ slug }),
    answer: z.strictObject({
      house: z.strictObject({ slug, name: shortText }),
      people: z.array(person.extend({ hasPassword: z.boolean() })),
      demoPin: pin.nullable().describe('only in the demo, where everyone has the same PIN'),
    }),
    open: true,
  }),
  signIn: endpoint({
    ...routes.access.signIn,
    summary: 'Sign in with a PIN, or with a password',
    body: z.union([
      z.strictObject({ personId: id, pin }),
      z.strictObject({ personId: id, password: z.string().min(8).max(200) }),
    ]),
    answer: meSchema,
    open: true,
  }),
  me: endpoint({
    ...routes.access.me,
    summary: 'Who is signed in',
    answer: meSchema,
  }),
  signOut: endpoint({
    ...routes.access.signOut,
    summary: 'Sign out',
    answer: nothing,
  }),
} as const;
