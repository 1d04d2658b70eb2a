/** Who works in the house: added, renamed, given a PIN, gone. What is done to them is written down. */
import type { Answer, Asked, api, HousePerson } from '@zabrik/contract';
import { newPinHash } from '../../access/pins.ts';
import { PersonTable } from '../../db/models/person.ts';
import { SettingChangeTable } from '../../db/models/settingChange.ts';
import { rowsOf } from '../../db/rows.ts';
import type { RowOf } from '../../db/table.ts';
import { Problem } from '../../http/problem.ts';
import type { Actor, InCommand, Services } from '../../services.ts';

type Person = RowOf<typeof PersonTable>;

const shown = (p: Person): HousePerson => ({
  id: p.id,
  name: p.name,
  role: p.role,
  hourlyMinor: p.hourlyMinor,
  skills: [...p.skills],
  mustNotTouch: [...p.mustNotTouch],
  shifts: [...p.shifts],
  hasPin: p.pinHash !== null,
  hasPassword: p.passwordHash !== null,
  leftAt: p.leftAt?.toISOString() ?? null,
  version: p.version,
});
/** What of a person is written down when it changes. */
const told = ({ name, role, hourlyMinor, leftAt, skills, mustNotTouch, shifts }: Person) => ({
  name,
  role,
  hourlyMinor,
  left: leftAt !== null,
  // what nobody has said of somebody is not written down each time
  ...(skills.length > 0 ? { skills } : {}),
  ...(mustNotTouch.length > 0 ? { mustNotTouch } : {}),
  ...(shifts.length > 0 ? { shifts } : {}),
});

/** What an hour of somebody costs is between them and the head chef. */
export async function readPeople({ db }: Services, actor: Actor): Promise<Answer<typeof api.house.people>> {
  const people = await rowsOf(db, PersonTable, actor).all({}, { order: ['name'] });
  const costs = actor.role === 'head-chef';
  return { people: people.map((p) => ({ ...shown(p), ...(costs ? {} : { hourlyMinor: null }) })) };
}

const nameFree = async ({ db }: Services, command: InCommand, name: string, but?: string): Promise<void> => {
  const taken = await rowsOf(db, PersonTable, command).one({ name });
  if (taken !== undefined && taken.id !== but) throw new Problem('name_taken');
};

export async function addPerson(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.house.addPerson>,
): Promise<HousePerson> {
  await nameFree(services, command, body.name);
  const people = rowsOf(services.db, PersonTable, command);
  const id = command.newId();
  await people.add({ id, ...body });
  return written(services, command, id, undefined);
}

/** Reads it anew and writes down what became of it. */
async function written(
  { db }: Services,
  command: InCommand,
  id: string,
  before: Person | undefined,
): Promise<HousePerson> {
  const after = await rowsOf(db, PersonTable, command).one({ id });
  if (after === undefined) throw new Problem('not_found');
  await rowsOf(db, SettingChangeTable, command).add({
    id: command.newId(),
    at: command.at,
    personId: command.actor.personId,
    what: 'person',
    about: after.name,
    before: before === undefined ? null : told(before),
    after: told(after),
  });
  return shown(after);
}

/** A house in which nobody may do what a head chef does cannot be run. Locks them all, in one order: two who go at the same moment are told one after the other. */
async function somebodyStays({ db }: Services, command: InCommand, but: string): Promise<void> {
  const chefs = await rowsOf(db, PersonTable, command).all(
    { role: 'head-chef', leftAt: null },
    { order: ['id'], lock: 'update' },
  );
  if (!chefs.some((c) => c.id !== but && (c.pinHash !== null || c.passwordHash !== null)))
    throw new Problem('last_head_chef');
}

const personAt = async ({ db }: Services, command: InCommand, personId: string, version: number): Promise<Person> => {
  const person = await rowsOf(db, PersonTable, command).one({ id: personId }, { lock: 'update' });
  if (person === undefined) throw new Problem('not_found');
  if (person.version !== version) throw new Problem('changed_since');
  return person;
};

export async function changePerson(
  services: Services,
  command: InCommand,
  { params: { personId }, body: { version, ...to } }: Asked<typeof api.house.changePerson>,
): Promise<HousePerson> {
  if (to.role !== 'head-chef') {
    const now = await rowsOf(services.db, PersonTable, command).one({ id: personId });
    if (now?.role === 'head-chef' && now.leftAt === null) await somebodyStays(services, command, personId);
  }
  const before = await personAt(services, command, personId, version);
  await nameFree(services, command, to.name, personId);
  const { skills = before.skills, mustNotTouch = before.mustNotTouch, shifts = before.shifts, ...named } = to;
  const next = { ...named, skills, mustNotTouch, shifts, version: version + 1 };
  await rowsOf(services.db, PersonTable, command).change({ id: personId }, next);
  return written(services, command, personId, before);
}

export async function leave(
  services: Services,
  command: InCommand,
  { params: { personId }, body: { left, version } }: Asked<typeof api.house.leave>,
): Promise<HousePerson> {
  if (left) {
    const now = await rowsOf(services.db, PersonTable, command).one({ id: personId });
    if (now?.role === 'head-chef' && now.leftAt === null) await somebodyStays(services, command, personId);
  }
  const before = await personAt(services, command, personId, version);
  await rowsOf(services.db, PersonTable, command).change(
    { id: personId },
    // who comes back is given a PIN anew: somebody else may have theirs by now
    left ? { leftAt: command.at, version: version + 1 } : { leftAt: null, pinHash: null, version: version + 1 },
  );
  return written(services, command, personId, before);
}

/** Errors: `bad_pin`. A PIN is written nowhere, so that this is no command: asked twice, it is the same PIN. */
export async function setPin(
  { db, clock }: Services,
  actor: Actor,
  { params: { personId }, body: { pin } }: Asked<typeof api.house.setPin>,
  newId: () => string,
): Promise<Answer<typeof api.house.setPin>> {
  const people = rowsOf(db, PersonTable, actor);
  const person = await people.one({ id: personId, leftAt: null });
  if (person === undefined) throw new Problem('not_found');
  await people.change({ id: personId }, { pinHash: await newPinHash(db, actor, personId, pin) });
  await rowsOf(db, SettingChangeTable, actor).add({
    id: newId(),
    at: clock(),
    personId: actor.personId,
    what: 'pin',
    about: person.name,
  });
  return { done: true };
}
