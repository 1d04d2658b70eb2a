import type { OwnGoods } from '@zabrik/contract';
import { PRACTICE_SCALE, type Units, usualUnits } from '@zabrik/core';
import { seededRandom } from '@zabrik/core/simulator';
import { startSimulatedScale } from '@zabrik/devices';
import type { Sequelize } from 'sequelize';
import type { Config } from './config.ts';
import { HouseTable } from './db/models/house.ts';
import { serverRows } from './db/rows.ts';
import { type Devices, HouseDevices, noDevices } from './devices/devices.ts';
import type { Announcer } from './live/announcer.ts';

type Said = Pick<Config, 'scales' | 'probe' | 'printer' | 'devicesHouse'>;

const texts = ({ host, port }: { readonly host: string; readonly port: number }): string => `${host}:${port}`;

/** As the plate of a usual kitchen scale says; comes to rest as one does. */
const PRACTICE = {
  name: 'practice',
  host: '127.0.0.1',
  port: 0,
  intervalMg: 1_000,
  maxMg: 15_000_000,
  lagMs: 90,
  restMs: 400,
} as const;

/**
 * What a server process keeps at hand of every house on this machine: its devices, and the units it reads and writes in.
 *
 * Of devices, what a house says on its own page goes first; the start command's addresses are for one house, the
 * first or the one that is named, and only for what it says nothing of. Each server process keeps its own lines; a change is heard of as every other
 * change is.
 */
export class HousesHere {
  readonly #db: Sequelize;
  readonly #announcer: Pick<Announcer, 'subscribe'>;
  readonly #said: Said;
  readonly #failed: (error: unknown) => void;
  readonly #houses = new Map<string, HouseDevices>();
  readonly #units = new Map<string, Units>();
  readonly #goods = new Map<string, readonly OwnGoods[]>();
  readonly #forget: (() => void)[] = [];
  /** The scales to practise on that stand in this process. */
  readonly #practice = new Map<string, ReturnType<typeof startSimulatedScale>>();
  /** Where the start command's devices stand. */
  #standsIn: string | undefined;

  constructor(
    db: Sequelize,
    announcer: Pick<Announcer, 'subscribe'>,
    said: Said,
    failed: (error: unknown) => void = () => undefined,
  ) {
    this.#db = db;
    this.#announcer = announcer;
    this.#said = said;
    this.#failed = failed;
  }

  /** Errors  the house that the start command names is not there. */
  async start(): Promise<void> {
    const houses = await serverRows(this.#db, HouseTable).all({}, { order: ['createdAt'] });
    const named = this.#said.devicesHouse;
    this.#standsIn = named === undefined ? houses[0]?.id : houses.find((h) => h.slug === named)?.id;
    if (named !== undefined && this.#standsIn === undefined)
      throw new Error(`Settings: ZABRIK_DEVICES_HOUSE: there is no house ${named} on this machine`);
    for (const { id } of houses) await this.#follow(id);
  }

  /** Those of a house that another process has set up come as soon as they are read. */
  devicesOf(houseId: string): Devices {
    if (!this.#houses.has(houseId)) this.place(houseId).catch(this.#failed);
    return this.#houses.get(houseId) ?? noDevices;
  }

  /** Those of the house that is worked for, or the usual ones where it is the server's own work. */
  unitsOf(houseId: string | undefined): Units {
    return (houseId === undefined ? undefined : this.#units.get(houseId)) ?? usualUnits;
  }

  /** What the house that is worked for buys beside what the catalogue knows. */
  goodsOf(houseId: string | undefined): readonly OwnGoods[] {
    return (houseId === undefined ? undefined : this.#goods.get(houseId)) ?? [];
  }

  /** A house that was made since. The start command's devices are its own where they stood nowhere. */
  async place(houseId: string, here = this.#standsIn === undefined): Promise<void> {
    if (here) this.#standsIn = houseId;
    await this.#follow(houseId);
  }

  close(): void {
    for (const forget of this.#forget) forget();
    for (const devices of this.#houses.values()) devices.close();
    for (const houseId of this.#practice.keys()) void this.#practiceAt(houseId, false);
  }

  async #follow(houseId: string): Promise<void> {
    if (!this.#houses.has(houseId)) {
      this.#houses.set(houseId, new HouseDevices());
      this.#forget.push(
        this.#announcer.subscribe(houseId, (said) => {
          const all = said.event === 'resync';
          if (all || (said.event === 'changed' && said.data.topics.includes('house')))
            this.#read(houseId).catch(this.#failed);
        }),
      );
    }
    await this.#read(houseId);
  }

  async #read(houseId: string): Promise<void> {
    const house = await serverRows(this.#db, HouseTable).one({ id: houseId });
    if (house === undefined) return;
    const here = houseId === this.#standsIn;
    const { settings } = house;
    this.#units.set(houseId, settings.units ?? usualUnits);
    this.#goods.set(houseId, settings.goods ?? []);
    const practice = await this.#practiceAt(houseId, settings.practiceScale === true);
    const { scales, probe, printer } = this.#said;
    this.#houses.get(houseId)?.standAt({
      scales: {
        ...(here ? Object.fromEntries(scales.map((s) => [s.id, texts(s)])) : {}),
        ...Object.fromEntries(settings.scales.flatMap((s) => (s.address === undefined ? [] : [[s.id, s.address]]))),
        ...practice,
      },
      probe: settings.probeAt ?? (here && probe !== undefined ? texts(probe) : undefined),
      printer: settings.printerAt ?? (here && printer !== undefined ? texts(printer) : undefined),
    });
  }

  /** The practice scale of a house stands in this process, begun when it is asked for and ended when it is not. */
  async #practiceAt(houseId: string, wanted: boolean): Promise<Readonly<Record<string, string>>> {
    const stands = this.#practice.get(houseId);
    if (!wanted) {
      this.#practice.delete(houseId);
      await (await stands)?.stop();
      return {};
    }
    const random = seededRandom(houseId);
    const scale = stands ?? startSimulatedScale({ ...PRACTICE, normal: () => random.normal() });
    this.#practice.set(houseId, scale);
    return { [PRACTICE_SCALE]: texts({ host: PRACTICE.host, port: (await scale).port }) };
  }
}
