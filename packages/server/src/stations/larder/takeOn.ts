import { categoryById } from '@zabrik/catalogue';
import type { Answer, Asked, api } from '@zabrik/contract';
import { confirmationsToPlace, type Keeping } from '@zabrik/core';
import { dayIn, placeNamed, readHouse } from '../../db/house.ts';
import { readSpecies } from '../../db/plans.ts';
import { Problem } from '../../http/problem.ts';
import { allergensOf, boughtThing, noSuch } from '../../massledger/boughtThing.ts';
import { confirmationWords } from '../../massledger/confirmations.ts';
import { keptFresh, type NewLot } from '../../massledger/makeLots.ts';
import { transform } from '../../massledger/transform.ts';
import type { InCommand, Services } from '../../services.ts';

type Body = Asked<typeof api.larder.takeOn>['body'];

interface Thing
  extends Pick<
    NewLot,
    'kind' | 'name' | 'species' | 'form' | 'category' | 'destination' | 'allergens' | 'goods' | 'raised'
  > {
  readonly ready: boolean;
  /** What stands on the shelf may have no date. */
  readonly needsDate: boolean;
}

async function thingOf(services: Services, command: InCommand, what: Body['what']): Promise<Thing> {
  if (what.kind === 'piece') {
    const species = (await readSpecies(services.db, command.actor.houseId, command.transaction)).get(what.species);
    if (species === undefined) throw noSuch('what.species', 'not in the catalogue');
    const category = categoryById.get(what.category);
    if (category === undefined) throw noSuch('what.category', 'no such kind of piece');
    return {
      kind: 'piece',
      name: `${species.name} ${what.name}`,
      species: species.id,
      form: null,
      category: category.id,
      destination: category.edible ? 'larder' : 'stock',
      allergens: allergensOf(species),
      goods: null,
      raised: null,
      ready: what.ready && category.edible,
      needsDate: true,
    };
  }
  const said = { species: null, form: null, goods: null, ...what };
  const bought = await boughtThing(services, command, said);
  return {
    ...bought,
    species: said.species,
    form: said.form,
    destination: bought.kind === 'goods' ? 'larder' : null,
    goods: said.goods,
    needsDate: bought.place !== 'ambient',
  };
}

/**
 * Something that lay there before anybody wrote it down, as on the first day of the records: it becomes a lot of its own, from no supplier, with the date
 * that stands on it. The movement is one of a count. Wild game without its record is held, as it is at the door.
 *
 * Errors  `invalid`, naming the field; `needs_confirmation` where raw would stand among ready to eat.
 */
export async function takeOn(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.larder.takeOn>,
): Promise<Answer<typeof api.larder.takeOn>> {
  const { db } = services;
  const thing = await thingOf(services, command, body.what);
  const house = await readHouse(db, command);
  const place = placeNamed(house, body.placeId);
  if (body.useBy === null && thing.needsDate)
    throw noSuch('useBy', 'Until when it keeps: what stands on it, or the day you will have used it by.');
  const asked = confirmationWords(confirmationsToPlace({ ready: thing.ready }, place, { needsCold: thing.needsDate }));
  if (asked.length > 0 && !body.confirmed) throw new Problem('needs_confirmation', asked.join(' '));
  const fresh = keptFresh(place.id, thing.ready, body.useBy);
  const keeping: Keeping = body.frozen
    ? { ...fresh, state: 'frozen', frozenOn: dayIn(house.timezone, command.at), daysLeft: 2 }
    : fresh;
  const { ready: _, needsDate: __, ...named } = thing;
  const lot: NewLot = {
    ...named,
    id: command.newId(),
    pieces: body.pieces,
    madeMg: body.massMg,
    keeping,
    dateBasis: body.useBy === null ? null : 'as it stood when it was taken on',
    supplierId: null,
    breakdownId: null,
    pieceId: null,
    batchId: null,
    note: body.note,
    held: thing.raised === 'wild' ? 'No record yet of who shot it, where and when' : null,
  };
  const costMinor = body.costMinor ?? 0;
  const { codes } = await transform(db, command, {
    kind: 'count',
    station: 'larder',
    note: body.note,
    makes: [{ lot, costMinor }],
    sinks: [{ sink: 'count', reason: 'lay there already', massMg: -body.massMg, costMinor: -costMinor }],
  });
  return { lotId: lot.id, code: codes.get(lot.id) ?? '', name: lot.name, massMg: body.massMg, useBy: body.useBy };
}
