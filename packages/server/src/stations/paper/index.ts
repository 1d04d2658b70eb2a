import { api } from '@zabrik/contract';
import type { Content } from 'pdfmake/interfaces';
import { dayIn, readHouse } from '../../db/house.ts';
import { readSpecies } from '../../db/plans.ts';
import type { GivenFile } from '../../http/file.ts';
import { keepsCosts } from '../../http/hideCosts.ts';
import { mountFile } from '../../http/mount.ts';
import { Problem } from '../../http/problem.ts';
import { timeOnPaper } from '../../paper/dateWords.ts';
import type { Actor } from '../../services.ts';
import { inThread } from '../../threads/inThread.ts';
import { listOpenBreakdowns, listWaiting } from '../bench/queries.ts';
import { filterOf, listOnHand } from '../larder/queries.ts';
import { readBatchRow } from '../pots/queries.ts';
import { listPrices } from '../receive/prices.ts';
import { readDelivery } from '../receive/queries.ts';
import type { Station } from '../station.ts';

/** More than any kitchen has: a sheet is whole or it says that it is not. */
const MOST = 20_000;

const anyLot = {
  search: undefined,
  destination: undefined,
  kind: undefined,
  place: undefined,
  category: undefined,
  state: undefined,
  due: undefined,
  held: undefined,
  cuttable: undefined,
  toWeight: undefined,
};
const dueWords = { past: 'past their date', today: 'last day today', soon: 'within two days' } as const;

export const paper: Station = {
  mount: (services, router) => {
    const { db, clock } = services;
    // set now and then: what sets them is not waited for by a server that comes back after a crash
    const sheets = () => import('./sheets.ts');
    const printed = async (actor: Actor, name: string, title: string, content: Content[]): Promise<GivenFile> => {
      const house = await readHouse(db, actor);
      const head = [house.name, `printed ${timeOnPaper(clock(), house.timezone)}`] as const;
      return {
        type: 'application/pdf',
        name: `${name}-${dayIn(house.timezone, clock())}.pdf`,
        inline: true,
        body: await inThread('letter', { title, content, head }),
      };
    };
    const today = async (actor: Actor): Promise<string> => dayIn((await readHouse(db, actor)).timezone, clock());
    mountFile(services, router, api.paper.larder, async (actor, { query: { group, ...filter } }) => {
      const { larderSheet, placeIn } = await sheets();
      const house = await readHouse(db, actor);
      const day = await today(actor);
      const { lots } = await listOnHand(db, actor.houseId, filterOf(filter), group, day, MOST, undefined);
      const animals = await readSpecies(db, actor.houseId);
      const groupOf =
        group === 'place'
          ? placeIn(house)
          : group === 'species'
            ? (l: (typeof lots)[number]) => animals.get(l.species ?? '')?.name ?? 'no animal'
            : group === 'supplier'
              ? (l: (typeof lots)[number]) => l.supplierName ?? 'of our own'
              : group === 'destination'
                ? (l: (typeof lots)[number]) => l.destination ?? (l.kind === 'delivery' ? 'whole' : l.kind)
                : undefined;
      const asked = [
        filter.search === undefined ? '' : `“${filter.search}”`,
        filter.place === undefined ? '' : placeIn(house)({ placeId: filter.place }),
        filter.destination ?? '',
        filter.kind ?? '',
        filter.state ?? '',
        filter.due === undefined ? '' : dueWords[filter.due],
        filter.held === undefined ? '' : 'on hold',
      ].filter((t) => t !== '');
      return printed(
        actor,
        'larder',
        'On hand',
        larderSheet(lots, day, groupOf, asked.length === 0 ? '' : `Only ${asked.join(', ')}`),
      );
    });
    mountFile(services, router, api.paper.stockTake, async (actor, { query: { place } }) => {
      const { stockTakeSheet, placeIn } = await sheets();
      const house = await readHouse(db, actor);
      const day = await today(actor);
      const { lots } = await listOnHand(
        db,
        actor.houseId,
        filterOf({ ...anyLot, place }),
        'place',
        day,
        MOST,
        undefined,
      );
      return printed(actor, 'stock-take', 'Stock-take', stockTakeSheet(lots, day, placeIn(house)));
    });
    mountFile(services, router, api.paper.cuttingList, async (actor) => {
      const { cuttingSheet } = await sheets();
      const day = await today(actor);
      const [open, waiting, { lots }] = await Promise.all([
        listOpenBreakdowns(db, actor.houseId, 500, undefined),
        listWaiting(db, actor.houseId),
        listOnHand(db, actor.houseId, filterOf({ ...anyLot, cuttable: 'yes' }), undefined, day, MOST, undefined),
      ]);
      return printed(
        actor,
        'cutting-list',
        'Cutting list',
        cuttingSheet(
          open.map((b) => ({
            what: `${b.speciesName}, ${b.formName}`,
            code: b.lotCode,
            plan: b.stageCount > 1 ? `${b.planTitle}: ${b.stageName}` : b.planTitle,
            who: b.holder,
            massMg: b.startMg,
          })),
          waiting.map((w) => ({
            what: `${w.speciesName}: ${w.stageName}`,
            codes: w.lots.map((l) => l.code).join(', '),
            massMg: w.lots.reduce((sum, l) => sum + l.freeMg, 0),
            useBy: w.useBy,
          })),
          lots,
          day,
        ),
      );
    });
    mountFile(services, router, api.paper.prices, async (actor, { query }) => {
      if (await keepsCosts(db, actor)) throw new Problem('not_your_role', 'This house keeps prices to those who cook.');
      const { priceSheet } = await sheets();
      const house = await readHouse(db, actor);
      const asked = { search: undefined, supplierId: query.supplierId, limit: MOST };
      const { prices } = await listPrices(db, actor.houseId, await today(actor), asked);
      return printed(actor, 'prices', 'Prices', priceSheet(prices, house.currency));
    });
    mountFile(services, router, api.paper.delivery, async (actor, { params }) => {
      const { deliverySheet } = await sheets();
      const house = await readHouse(db, actor);
      const delivery = await readDelivery(db, house, params.deliveryId);
      return printed(
        actor,
        'delivery',
        `${delivery.supplierName}, ${timeOnPaper(new Date(delivery.at), house.timezone)}`,
        deliverySheet(delivery, house.currency, !(await keepsCosts(db, actor))),
      );
    });
    mountFile(services, router, api.paper.batch, async (actor, { params }) => {
      const { batchSheet } = await sheets();
      const house = await readHouse(db, actor);
      const batch = await readBatchRow(db, actor.houseId, params.batchId);
      return printed(
        actor,
        'batch',
        batch.recipe.title,
        batchSheet(batch, house.currency, !(await keepsCosts(db, actor))),
      );
    });
  },
};
