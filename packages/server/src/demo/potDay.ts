/** The pots of yesterday and today: a stock cooled in time and logged, and a ragù that cools too slowly. Invented. */
import { trays } from '@zabrik/catalogue/heat';
import { api } from '@zabrik/contract';
import { v7 as uuidv7 } from 'uuid';
import { closeCooling, recordCooling, startCooling } from '../stations/pots/coolings.ts';
import type { Replay } from './replay.ts';

const MINUTE = 60_000;

export async function potDay(replay: Replay, now: Date): Promise<void> {
  const { services } = replay;
  const log = async (
    name: string,
    minutesAgo: number,
    setup: Parameters<typeof startCooling>[2]['body']['setup'],
    readings: readonly (readonly [minute: number, C: number])[],
    closed: boolean,
  ): Promise<void> => {
    const start = now.getTime() - minutesAgo * MINUTE;
    const at = (minute: number): Date => new Date(start + minute * MINUTE);
    const id = uuidv7();
    const [first, ...rest] = readings;
    await replay.do('Tobin Arkwell', at(0), api.pots.startCooling.id, (command) =>
      startCooling(services, command, {
        params: undefined,
        query: undefined,
        body: {
          id,
          kind: 'cooling',
          lotId: null,
          batchId: null,
          name,
          setup,
          limitId: 'uk.cool.cookchill',
          at: at(0).toISOString(),
          centiC: (first?.[1] ?? 80) * 100,
          source: 'probe',
        },
      }),
    );
    for (const [minute, C] of rest)
      await replay.do('Tobin Arkwell', at(minute), api.pots.readCooling.id, (command) =>
        recordCooling(services, command, {
          params: { coolingId: id },
          query: undefined,
          body: { at: at(minute).toISOString(), centiC: Math.round(C * 100), source: 'probe' },
        }),
      );
    if (closed)
      await replay.do('Tobin Arkwell', at(100), api.pots.closeCooling.id, (command) =>
        closeCooling(services, command, { params: { coolingId: id }, query: undefined, body: { outcome: null } }),
      );
  };
  const tray = trays[0];
  if (tray === undefined) throw new Error('the catalogue has no tray');
  await log(
    'Fumet',
    20 * 60,
    {
      mediumId: 'blast-chiller',
      vesselName: tray.name,
      vessel: tray.shape,
      count: 2,
      litres: 4.2,
      airC: null,
      setsAtC: null,
    },
    [
      [0, 84],
      [15, 52.5],
      [30, 30.8],
      [45, 16.4],
      [60, 7.1],
      [78, 2.4],
    ],
    true,
  );
  await log(
    'Ragù for the staff',
    34,
    {
      mediumId: 'cold-room-open',
      vesselName: '12 l pot',
      vessel: { kind: 'round', diameterMm: 260, heightMm: 230 },
      count: 1,
      litres: 6.5,
      airC: 3,
      setsAtC: null,
    },
    [
      [0, 82],
      [15, 73.6],
      [30, 66.9],
    ],
    false,
  );
}
