import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import { id, nothing, shortText, slug } from '../fields.ts';
import { roleSchema } from '../roles.ts';

const person = z.strictObject({ id, name: shortText, role: roleSchema });
export const meSchema = z.strictObject({ person, house: z.strictObject({ id, slug, name: shortText }) });
export type Me = z.output<typeof meSchema>;

const pin = z.string().regex(/^\d{4,6}$/, 'four to six digits');

export const access = {
  houses: endpoint({
    id: 'access.houses',
    method: 'get',
    path: '/houses',
    summary: 'The houses on this machine',
    answer: z.strictObject({ houses: z.array(z.strictObject({ slug, name: shortText })) }),
    command: false,
    open: true,
  }),
  door: endpoint({
    id: 'access.door',
    method: 'get',
    path: '/houses/:slug/door',
    summary: 'Who can sign in to a house',
    params: z.strictObject({ slug }),
    answer: z.strictObject({
      house: z.strictObject({ slug, name: shortText }),
      people: z.array(person.extend({ hasPassword: z.boolean() })),
      demoPin: pin.nullable().describe('only in the demo, where everyone has the same PIN'),
    }),
    command: false,
    open: true,
  }),
  signIn: endpoint({
    id: 'access.signIn',
    method: 'post',
    path: '/session',
    summary: 'Sign in with a PIN, or with a password',
    body: z.union([
      z.strictObject({ personId: id, pin }),
      z.strictObject({ personId: id, password: z.string().min(8).max(200) }),
    ]),
    answer: meSchema,
    command: false,
    open: true,
  }),
  me: endpoint({
    id: 'access.me',
    method: 'get',
    path: '/session',
    summary: 'Who is signed in',
    answer: meSchema,
    command: false,
  }),
  signOut: endpoint({
    id: 'access.signOut',
    method: 'delete',
    path: '/session',
    summary: 'Sign out',
    answer: nothing,
    command: false,
  }),
} as const;
