import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import { currency, id, instant, newName, nothing, shortText, slug, timezone } from '../fields.ts';
import { roles } from '../roles.ts';
import { unitsSchema } from '../units.ts';

const password = z.string().min(8).max(200);
/** One that is set now (ASVS 2.1.1); who has an older one of eight letters still signs in with it. */
const newPassword = z.string().min(12, 'at least twelve letters').max(200);

const person = z.strictObject({ id, name: shortText, role: z.enum(roles) });
export const meSchema = z.strictObject({
  person,
  house: z.strictObject({ id, slug, name: shortText }),
  mustNotTouch: z.array(z.string()).readonly().describe('allergens this person must not touch'),
  firstDay: z.boolean().describe('what to touch first is still shown'),
  restored: z
    .strictObject({ id, stateAt: instant })
    .nullable()
    .describe('the last time the records were brought back from a backup, and the moment they stand as of'),
});
export type Me = z.output<typeof meSchema>;

export const pin = z.string().regex(/^\d{4,6}$/, 'four to six digits');

const tabletId = z.string().regex(/^[0-9a-f]{64}$/);
export const tabletSchema = z.strictObject({
  id: tabletId,
  name: shortText.nullable(),
  people: z.array(id).readonly(),
  since: instant,
  seenAt: instant.nullable().describe('when somebody last signed in on it'),
  here: z.boolean().describe('the one that asks'),
});
export type Tablet = z.output<typeof tabletSchema>;

export const access = {
  houses: endpoint({
    id: 'access.houses',
    method: 'get',
    path: '/houses',
    command: false,
    may: 'open',
    summary: 'The houses on this machine',
    answer: z.strictObject({ houses: z.array(z.strictObject({ slug, name: shortText })) }),
  }),
  signInOptions: endpoint({
    id: 'access.signInOptions',
    method: 'get',
    path: '/houses/:slug/sign-in',
    command: false,
    may: 'open',
    summary: 'Who can sign in to a house',
    params: z.strictObject({ slug }),
    answer: z.strictObject({
      house: z.strictObject({ slug, name: shortText }),
      people: z.array(
        person.extend({
          hasPassword: z.boolean(),
          ofThisTablet: z.boolean().describe('it was lent to them'),
          onShift: z.boolean().describe('by their usual shifts they are at work now'),
        }),
      ),
      tablet: shortText.nullable().describe('what the house calls this tablet'),
      demoPin: pin.nullable().describe('only in the demo, where everyone has the same PIN'),
    }),
  }),
  signIn: endpoint({
    id: 'access.signIn',
    method: 'post',
    path: '/session',
    command: false,
    may: 'open',
    summary: 'Sign in with a PIN, or with a password',
    body: z.union([z.strictObject({ personId: id, pin }), z.strictObject({ personId: id, password })]),
    answer: meSchema,
  }),
  me: endpoint({
    id: 'access.me',
    method: 'get',
    path: '/session',
    command: false,
    may: 'everyone',
    summary: 'Who is signed in',
    answer: meSchema,
  }),
  signOut: endpoint({
    id: 'access.signOut',
    method: 'delete',
    path: '/session',
    command: false,
    may: 'everyone',
    summary: 'Sign out',
    answer: nothing,
  }),
  stillHere: endpoint({
    id: 'access.stillHere',
    method: 'post',
    path: '/session/here',
    command: false,
    may: 'everyone',
    summary: 'Somebody touches this tablet: the session goes on, within the shift',
    answer: z.strictObject({ until: instant }),
  }),
  signedIn: endpoint({
    id: 'access.signedIn',
    method: 'get',
    path: '/sessions',
    command: false,
    may: 'everyone',
    summary: 'Where one is signed in; for the head chef where everybody is',
    answer: z.strictObject({
      sessions: z.array(
        z.strictObject({ person, since: instant, until: instant, here: z.boolean().describe('this very session') }),
      ),
    }),
  }),
  signOutPerson: endpoint({
    id: 'access.signOutPerson',
    method: 'delete',
    path: '/people/:personId/sessions',
    command: false,
    may: 'everyone',
    summary: 'Sign out everywhere: oneself, or for the head chef anybody of the house',
    params: z.strictObject({ personId: id }),
    answer: z.strictObject({ ended: z.int().nonnegative() }),
  }),
  tablets: endpoint({
    id: 'access.tablets',
    method: 'get',
    path: '/tablets',
    command: false,
    may: 'chefs',
    summary: 'The tablets somebody of the house has signed in on, those with a name first',
    answer: z.strictObject({ tablets: z.array(tabletSchema) }),
  }),
  lendTablet: endpoint({
    id: 'access.lendTablet',
    method: 'post',
    path: '/tablets/:tabletId',
    command: false,
    may: 'head-chef',
    summary: 'Lends a tablet to a bench: its name, and whose faces stand first at its door',
    params: z.strictObject({ tabletId }),
    body: z.strictObject({ name: newName, people: z.array(id).max(30) }),
    answer: nothing,
  }),
  forgetTablet: endpoint({
    id: 'access.forgetTablet',
    method: 'delete',
    path: '/tablets/:tabletId',
    command: false,
    may: 'head-chef',
    summary: 'Knows a tablet no more: whoever is signed in on it is out, and it stands in the street like any stranger',
    params: z.strictObject({ tabletId }),
    answer: nothing,
  }),
  firstDayOver: endpoint({
    id: 'access.firstDayOver',
    method: 'post',
    path: '/session/first-day-over',
    command: false,
    may: 'everyone',
    summary: 'One knows one’s way: what to touch first is shown no more',
    body: z.strictObject({}),
    answer: nothing,
  }),
  known: endpoint({
    id: 'access.known',
    method: 'post',
    path: '/commands/known',
    command: false,
    may: 'everyone',
    summary: 'Which of these commands the records do not know: asked by a tablet after a restore',
    body: z.strictObject({ keys: z.array(id).min(1).max(500) }),
    answer: z.strictObject({ unknown: z.array(id) }),
  }),
  changePin: endpoint({
    id: 'access.changePin',
    method: 'post',
    path: '/session/pin',
    command: false,
    may: 'everyone',
    summary: 'Another PIN for oneself: signs in anew everywhere else',
    body: z.strictObject({ pin, next: pin }),
    answer: nothing,
  }),
  setUpOpen: endpoint({
    id: 'access.setUpOpen',
    method: 'get',
    path: '/set-up',
    command: false,
    may: 'open',
    summary: 'Whether a kitchen can be set up on this machine: as long as it has none',
    query: z.strictObject({ timezone: timezone.optional() }),
    answer: z.strictObject({
      open: z.boolean(),
      profiles: z.array(z.strictObject({ id: z.string(), title: z.string(), scope: z.string() })),
      usual: z.string().nullable().describe('the profile of the country whose clock that is'),
    }),
  }),
  setUp: endpoint({
    id: 'access.setUp',
    method: 'post',
    path: '/set-up',
    command: false,
    may: 'open',
    summary: 'Sets up the first kitchen of this machine, by the code that its command has printed',
    body: z.strictObject({
      code: z.string().min(1).max(40),
      name: newName,
      currency,
      timezone,
      profileId: z.string().min(1).max(64),
      units: unitsSchema.exactOptional(),
      headChef: z.strictObject({ name: newName, pin, password: newPassword }),
    }),
    answer: z.strictObject({
      me: meSchema,
      recoveryCode: z.string().describe('shown once: it lets the head chef in who has forgotten the password'),
    }),
  }),
  recover: endpoint({
    id: 'access.recover',
    method: 'post',
    path: '/recovery',
    command: false,
    may: 'open',
    summary:
      'A new PIN and password for a head chef, by the recovery code of the house; the code is another afterwards',
    body: z.strictObject({ slug, code: z.string().min(1).max(60), personId: id, pin, password: newPassword }),
    answer: z.strictObject({ recoveryCode: z.string() }),
  }),
  newRecoveryCode: endpoint({
    id: 'access.newRecoveryCode',
    method: 'post',
    path: '/recovery/code',
    command: false,
    may: 'head-chef',
    summary: 'Another recovery code for the house: the one before is none any more',
    answer: z.strictObject({ recoveryCode: z.string() }),
  }),
} as const;
