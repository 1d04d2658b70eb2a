import { planById, speciesById } from '@zabrik/catalogue';
import { type Asked, acceptBody, api, keepBody } from '@zabrik/contract';
import { usuallyRaised } from '@zabrik/core';
import { drawAnimal, type SimulatedBreakdown, type SimulatedWeighing, seededRandom } from '@zabrik/core/simulator';
import { v7 as uuidv7 } from 'uuid';
import { readHead, stageOf } from '../db/breakdownHead.ts';
import { runCommand } from '../http/mount.ts';
import { Problem } from '../http/problem.ts';
import type { Actor, InCommand, Services } from '../services.ts';
import { closeStage } from '../stations/bench/close.ts';
import { listWaiting } from '../stations/bench/queries.ts';
import { goOn, startBreakdown } from '../stations/bench/start.ts';
import { weigh } from '../stations/bench/weigh.ts';
import { keep } from '../stations/larder/keep.ts';
import { takeOut } from '../stations/larder/service.ts';
import { finishBatch } from '../stations/pots/finishBatch.ts';
import { planBatch } from '../stations/pots/service.ts';
import { acceptDelivery } from '../stations/receive/service.ts';
import * as scenario from './scenario.ts';

const MINUTE = 60_000;
const DAY = 24 * 60 * MINUTE;

export interface Cast {
  readonly houseId: string;
  readonly people: ReadonlyMap<string, Actor>;
  readonly suppliers: ReadonlyMap<string, string>;
}

/** Works through the services as cooks would, with the clock turned to when it happened. */
export class Replay {
  readonly #services: Services;
  readonly #cast: Cast;
  #now: Date;

  constructor(services: Services, cast: Cast) {
    this.#cast = cast;
    this.#now = services.clock();
    this.#services = { ...services, clock: () => this.#now, announce: () => undefined };
  }

  get services(): Services {
    return this.#services;
  }

  actor(name: string): Actor {
    const actor = this.#cast.people.get(name);
    if (actor === undefined) throw new Error(`nobody called ${name} in the demo`);
    return actor;
  }

  supplier(name: string): string {
    const id = this.#cast.suppliers.get(name);
    if (id === undefined) throw new Error(`no supplier called ${name} in the demo`);
    return id;
  }

  do<A>(name: string, at: Date, endpoint: string, work: (command: InCommand) => Promise<A>): Promise<A> {
    this.#now = at;
    return runCommand(this.#services, this.actor(name), uuidv7(), endpoint, null, undefined, work);
  }

  async receive(
    b: Omit<SimulatedBreakdown, 'startedAt' | 'closedAt' | 'weighings' | 'planId'>,
    animals: number,
    useBy: string | null = null,
  ): Promise<string> {
    const supplierId = this.supplier(b.supplierId);
    const tareMg = b.startMg > 4_000_000 ? 820_000 : 412_000;
    const body = acceptBody.parse({
      species: b.speciesId,
      form: b.form,
      animals,
      supplierId,
      origin: scenario.origins[b.supplierId] ?? null,
      grossMg: b.startMg + tareMg,
      tareMg,
      invoiceMg: b.invoiceMg,
      paidMinor: b.paidMinor,
      temperatureCentiC: b.temperatureCentiC,
      landedOn:
        speciesById.get(b.speciesId)?.allergen === 'fish'
          ? new Date(b.receivedAt.getTime() - DAY).toISOString().slice(0, 10)
          : null,
      useBy,
      note: null,
      ...(usuallyRaised(speciesById.get(b.speciesId)) === 'wild'
        ? {
            details: {
              shotBy: 'E. Harrow',
              killPlace: scenario.origins[b.supplierId] ?? 'the estate',
              killedOn: new Date(b.receivedAt.getTime() - 3 * DAY).toISOString().slice(0, 10),
              shotDamage: 'light',
            },
          }
        : {}),
    });
    const delivery = await this.do(b.cutterId, b.receivedAt, api.receive.accept.id, (command) =>
      acceptDelivery(this.#services, command, { body, params: undefined, query: undefined }),
    );
    if (delivery.lotId === null) throw new Error('the demo refuses nothing here');
    return delivery.lotId;
  }

  async start(
    lotId: string,
    planId: string,
    cutter: string,
    at: Date,
    animals: number,
    massMg: number | null,
  ): Promise<string> {
    const opened = await this.do(cutter, at, api.bench.start.id, (command) =>
      startBreakdown(this.#services, command, {
        body: { lotId, planId, animals, massMg, way: null, confirmed: false },
        params: undefined,
        query: undefined,
      }),
    );
    return opened.id;
  }

  async weighAll(
    breakdownId: string,
    planId: string,
    cutter: string,
    from: Date,
    until: Date,
    weighings: readonly SimulatedWeighing[],
  ): Promise<void> {
    const pieces = planById.get(planId)?.stages[0]?.pieces ?? [];
    const step = (until.getTime() - from.getTime()) / (weighings.length + 1);
    for (const [i, { pieceId, massMg }] of weighings.entries()) {
      const at = new Date(from.getTime() + Math.round(step * (i + 1)));
      this.#now = at;
      await weigh(this.#services, this.actor(cutter), uuidv7(), breakdownId, {
        kind: 'take',
        pieceId,
        destination: pieces.find((p) => p.id === pieceId)?.destination ?? 'waste',
        massMg,
        source: 'scale',
        count: 1,
        animal: null,
        scale: null,
        replaces: null,
        also: null,
        at: at.toISOString(),
      });
    }
  }

  /** Carries on with what the stage just closed left waiting. */
  async goOn(breakdownId: string, cutter: string, at: Date): Promise<string> {
    const waiting = (await listWaiting(this.#services.db, this.#cast.houseId)).find(
      (w) => w.breakdownId === breakdownId,
    );
    const lots = (waiting?.lots ?? []).map((l) => ({ lotId: l.lotId, massMg: null }));
    const opened = await this.do(cutter, at, api.bench.goOn.id, (command) =>
      goOn(this.#services, command, {
        body: { lots, way: null, confirmed: false },
        params: undefined,
        query: undefined,
      }),
    );
    return opened.id;
  }

  /** Weighs one drawn animal, or a batch, by kind. */
  async workStage(breakdownId: string, cutter: string, from: Date, until: Date): Promise<void> {
    const head = await readHead(this.#services.db, this.#cast.houseId, breakdownId);
    const stage = stageOf(head.plan, head.stageId);
    const animal = drawAnimal(
      {
        startMg: head.startMg,
        shares: stage.pieces.map((p) => ({ pieceId: p.id, mean: p.share.mean, sd: p.share.sd })),
        drip: stage.drip,
        mainPieces: [],
        framePiece: undefined,
        leftOnFrame: 0,
        condition: 1,
      },
      seededRandom(`${head.planId}/${stage.id}`),
    );
    const step = (until.getTime() - from.getTime()) / (stage.pieces.length + 1);
    for (const [i, { pieceId, massMg }] of animal.pieces.entries()) {
      const at = new Date(from.getTime() + Math.round(step * (i + 1)));
      const piece = stage.pieces.find((p) => p.id === pieceId);
      const grams = Math.round(massMg / 1_000) * 1_000;
      if (piece === undefined || grams === 0) continue;
      this.#now = at;
      await weigh(this.#services, this.actor(cutter), uuidv7(), breakdownId, {
        kind: 'take',
        pieceId,
        destination: piece.destination,
        massMg: grams,
        source: 'scale',
        count: piece.count * head.animals,
        animal: null,
        scale: null,
        replaces: null,
        also: null,
        at: at.toISOString(),
      });
    }
  }

  async close(breakdownId: string, cutter: string, at: Date): Promise<void> {
    const closing = (unbalancedReason: string | null): Asked<typeof api.bench.close> => ({
      params: { breakdownId },
      body: { unbalancedReason, cooked: { through: true, coreCentiC: null, placeId: null, added: [] } },
      query: undefined,
    });
    try {
      await this.do(cutter, at, api.bench.close.id, (command) => closeStage(this.#services, command, closing(null)));
    } catch (error) {
      if (!(error instanceof Problem && error.code === 'out_of_balance')) throw error;
      await this.do(cutter, at, api.bench.close.id, (command) =>
        closeStage(this.#services, command, closing('Stood on the bench through service; more drip than usual.')),
      );
    }
  }

  async takeOut(
    lotId: string,
    massMg: number,
    at: Date,
    to: 'served' | 'staff' | 'waste',
    reason: 'spoiled' | 'over-ordered' | null,
  ): Promise<void> {
    await this.do('Tobin Arkwell', at, api.larder.takeOut.id, (command) =>
      takeOut(this.#services, command, {
        params: { lotId },
        body: { massMg, pieces: null, to, reason, note: null },
        query: undefined,
      }),
    );
  }

  async freeze(lotId: string, at: Date): Promise<void> {
    await this.do('Tobin Arkwell', at, api.larder.keep.id, (command) =>
      keep(this.#services, command, {
        params: { lotId },
        body: keepBody.parse({ kind: 'freeze', placeId: 'freezer' }),
        query: undefined,
      }),
    );
  }

  async batch(recipeId: string, lotIds: string[], at: Date, outputShare: number | null): Promise<string | undefined> {
    const planned = await this.do('Tobin Arkwell', at, api.pots.plan.id, (command) =>
      planBatch(this.#services, command, {
        body: { recipeId, lotIds, vesselId: null, onHandMg: {}, ways: [], shares: {}, want: null, cure: null },
        params: undefined,
        query: undefined,
      }),
    );
    if (outputShare === null) return undefined;
    const outputMg = Math.round((planned.baseMg * outputShare) / 1_000) * 1_000;
    const spentMg = planned.kind === 'stock' ? Math.round((planned.baseMg * 0.78) / 1_000) * 1_000 : 0;
    const done = await this.do('Tobin Arkwell', new Date(at.getTime() + 70 * MINUTE), api.pots.finish.id, (command) =>
      finishBatch(this.#services, command, {
        params: { batchId: planned.id },
        body: {
          outputMg,
          spentMg,
          spentTo: 'waste',
          beside: [],
          keptAs: null,
          fatMg: 0,
          labourMinutes: Math.round(20 + (planned.baseMg / 1e6) * 3),
          at: null,
          note: null,
        },
        query: undefined,
      }),
    );
    return done.outputLot?.id;
  }
}
