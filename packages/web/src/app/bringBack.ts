/**
 * After the records were brought back from a backup: asks which of the things this tablet has done they do not know, and lays those out to be
 * sent again. Only what was done for the same house; each remains its own cook's.
 */
import type { EndpointId, Me } from '@zabrik/contract';
import { call } from './api.ts';
import { doneSince } from './done.ts';
import { api } from './endpoints.ts';
import { offerBack } from './outbox.ts';

const SEEN = 'zabrik-restored';
const AT_ONCE = 500;
/** Clocks of a kitchen may differ, and one too many is asked for nothing. */
const EARLIER_MS = 3_600_000;

/** What a command is called where it is spoken of later. */
const words: Partial<Readonly<Record<EndpointId, string>>> = {
  'house.saveLimits': 'the house’s limits',
  'house.saveViewers': 'what viewers see',
  'house.seeCaution': 'a caution read',
  'receive.addSupplier': 'a new supplier',
  'receive.accept': 'something taken in',
  'receive.close': 'a delivery closed',
  'receive.photograph': 'a photograph',
  'receive.order': 'an order',
  'receive.callOff': 'an order called off',
  'receive.sendPrices': 'prices',
  'receive.undoPrices': 'prices taken back',
  'bench.start': 'an animal begun',
  'bench.goOn': 'a later stage begun',
  'bench.reopen': 'a stage opened again',
  'bench.savePlan': 'a cut plan',
  'bench.retirePlan': 'a cut plan retired',
  'bench.saveSpecies': 'a species',
  'bench.close': 'a stage closed',
  'bench.cancel': 'an animal put back',
  'cutting.start': 'a cutting begun',
  'cutting.close': 'a cutting closed',
  'cutting.cancel': 'a cutting given up',
  'larder.takeOut': 'something taken out',
  'larder.keep': 'how something is kept',
  'larder.undoKeep': 'how something is kept, taken back',
  'larder.split': 'a lot split',
  'larder.merge': 'lots put together',
  'larder.startTub': 'a tub begun',
  'larder.fill': 'a tub filled',
  'larder.count': 'a stock-take',
  'larder.printLabels': 'labels printed',
  'pots.saveRecipe': 'a recipe',
  'pots.plan': 'a batch planned',
  'pots.finish': 'a batch done',
  'pots.cancel': 'a batch called off',
  'ledger.reverse': 'an entry taken back',
};

const seen = (): string | null => {
  try {
    return localStorage.getItem(SEEN);
  } catch {
    return null;
  }
};

/** Answers how much there is to send again. Done once for each time the records were brought back. */
export async function bringBack({ restored, house }: Me): Promise<number> {
  if (restored === null || seen() === restored.id) return 0;
  const done = (await doneSince(Date.parse(restored.stateAt) - EARLIER_MS)).filter((d) => d.by.houseId === house.id);
  const lost = new Set<string>();
  for (let from = 0; from < done.length; from += AT_ONCE) {
    const keys = done.slice(from, from + AT_ONCE).map((d) => d.key);
    for (const key of (await call(api.access.known, { body: { keys } })).unknown) lost.add(key);
  }
  const offered = done
    .filter((d) => lost.has(d.key))
    .map((d) => ({ ...d, says: words[d.says as EndpointId] ?? d.says }));
  await offerBack(offered, restored.stateAt);
  try {
    localStorage.setItem(SEEN, restored.id);
  } catch {
    // asked again next time: what was offered stands under the same key
  }
  return offered.length;
}
