/** Lots of one kind put together into a new one. */
import type { Answer, Asked, api } from '@zabrik/contract';
import { carryAllergens } from '@zabrik/core';
import { Problem } from '../../http/problem.ts';
import { lockLots, mustBeFree } from '../../massledger/lockLots.ts';
import type { NewLot } from '../../massledger/makeLots.ts';
import { transform } from '../../massledger/transform.ts';
import type { InCommand, Services } from '../../services.ts';
import { joined, mustHave, mustNotWait } from './lotsOfLots.ts';

/** Puts lots of one kind together into a new one. Errors: `not_alike`, naming the first that differs; `needs_confirmation` when one was thawed. */
export async function merge(
  services: Services,
  command: InCommand,
  { body }: Asked<typeof api.larder.merge>,
): Promise<Answer<typeof api.larder.merge>> {
  const lots = await lockLots(services.db, command.transaction, command.actor.houseId, [...new Set(body.lotIds)]);
  const [first, ...others] = lots;
  if (first === undefined || others.length === 0) throw new Problem('not_alike', 'It takes two lots to put together.');
  mustBeFree(lots);
  for (const lot of lots) {
    mustHave(lot, lot.massMg);
    mustNotWait(lot);
    const differs =
      lot.kind === 'tub'
        ? 'is a tub: fill it instead'
        : lot.species !== first.species ||
            lot.category !== first.category ||
            lot.goods !== first.goods ||
            lot.form !== first.form
          ? 'is of another kind'
          : lot.destination !== first.destination
            ? 'is for something else'
            : (lot.state === 'frozen') !== (first.state === 'frozen')
              ? 'is frozen and the other is not'
              : lot.ready !== first.ready
                ? 'is ready to eat and the other is raw'
                : lot.kind === 'batch' && lot.name !== first.name
                  ? 'is another dish'
                  : undefined;
    if (differs !== undefined) throw new Problem('not_alike', `Lot ${lot.code}, ${lot.name}, ${differs}.`);
  }
  const lotId = command.newId();
  const massMg = lots.reduce((sum, l) => sum + l.massMg, 0);
  const costMinor = lots.reduce((sum, l) => sum + l.costMinor, 0);
  const keeping = joined(lots);
  const one: NewLot = {
    id: lotId,
    kind: first.kind,
    name: first.name,
    species: first.species,
    form: first.form,
    category: first.category,
    destination: first.destination,
    pieces: lots.reduce((sum, l) => sum + l.pieces, 0),
    madeMg: massMg,
    keeping,
    dateBasis: `the oldest of ${lots.map((l) => l.code).join(', ')}`.slice(0, 300),
    supplierId: lots.every((l) => l.supplierId === first.supplierId) ? first.supplierId : null,
    breakdownId: null,
    pieceId: first.pieceId,
    batchId: null,
    allergens: carryAllergens(...lots.map((l) => l.allergens)),
    goods: first.goods,
    madeAt: new Date(Math.min(...lots.map((l) => l.madeAt.getTime()))),
  };
  const { movementId, codes } = await transform(services.db, command, {
    kind: 'merge',
    station: 'larder',
    outOf: lots.map((l) => ({ lot: l, massMg: l.massMg, costMinor: l.costMinor })),
    makes: [{ lot: one, costMinor }],
  });
  return { movementId, lotId, code: codes.get(lotId) ?? '', useBy: keeping.useBy };
}
