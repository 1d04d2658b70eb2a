import { media, trays } from '@zabrik/catalogue/heat';
import type { House } from '@zabrik/contract';
import {
  bathIce,
  brimOf,
  type CoolingProgress,
  type CoolingSteps,
  coolingCurve,
  coolingProgress,
  levelOf,
  minutesTo,
  type VesselShape,
} from '@zabrik/core';

export interface Method {
  readonly id: string;
  readonly mediumId: string;
  readonly medium: string;
  readonly vesselName: string;
  readonly vessel: VesselShape;
  readonly count: number;
  readonly litres: number;
  readonly depthMm: number;
  readonly C: readonly number[];
  readonly progress: CoolingProgress | undefined;
  /** Minutes to each step of the limit, on its own clock; undefined where it never gets there. */
  readonly minutes: readonly (number | undefined)[];
  readonly iceKg: number | undefined;
}

export interface Batch {
  readonly litres: number;
  readonly fromC: number;
  /** Below this it stands still; null: it moves by itself all the way. */
  readonly setsAtC: number | null;
  /** What the cold room's air was measured at. */
  readonly coldRoomC: number;
}

/** The medium as it is here: a cold room as cold as it was measured. */
export const measured = <T extends { readonly id: string; readonly airC: number }>(medium: T, coldRoomC: number): T =>
  medium.id.startsWith('cold-room') ? { ...medium, airC: coldRoomC } : medium;

const LONG = 1_440;

/** A way of cooling with all that can be said of it beforehand. */
export function methodOf(
  batch: Batch,
  o: { readonly mediumId: string; readonly vesselName: string; readonly vessel: VesselShape; readonly count: number },
  limit: CoolingSteps | undefined,
): Method | undefined {
  const found = media.find((m) => m.id === o.mediumId);
  if (found === undefined) return undefined;
  const medium = measured(found, batch.coldRoomC);
  const litres = batch.litres / o.count;
  const { C, joules } = coolingCurve(
    {
      vessel: o.vessel,
      litres,
      fromC: batch.fromC,
      ...(batch.setsAtC === null ? {} : { setsAtC: batch.setsAtC }),
    },
    medium,
    { minutes: LONG, stopC: medium.airC + 0.2 },
  );
  return {
    id: `${o.mediumId}/${o.vesselName}/${o.count}`,
    mediumId: o.mediumId,
    medium: medium.name,
    vesselName: o.vesselName,
    vessel: o.vessel,
    count: o.count,
    litres,
    depthMm: levelOf(o.vessel, litres),
    C,
    progress:
      limit === undefined
        ? undefined
        : coolingProgress(
            limit,
            C.map((c, minute) => ({ minute, C: c })),
            C.length - 1,
          ),
    minutes: (limit?.value.steps ?? []).map((s) => minutesTo(C, s.to_C, limit?.value.start_C ?? undefined)),
    iceKg: medium.ice === true ? bathIce(joules * o.count) : undefined,
  };
}

/** The ways a kitchen has: the pot as it is, and the batch divided over trays no deeper than 5 cm. */
export function methodsFor(batch: Batch, house: House | undefined, limit: CoolingSteps | undefined): readonly Method[] {
  const pots = (house?.vessels ?? [])
    .flatMap((v) => (v.shape === undefined || v.kind === 'pan' ? [] : [{ name: v.name, shape: v.shape }]))
    .filter((v) => brimOf(v.shape) * 0.95 >= batch.litres);
  const pot = pots[0] ?? { name: 'pot', shape: { kind: 'round', diameterMm: 400, heightMm: 400 } as const };
  const tray = trays[0];
  const inPot = ['room-lidded', 'cold-room-lidded', 'cold-room-open', 'ice-bath-still', 'ice-bath-stirred'] as const;
  const inTrays = ['cold-room-open', 'cold-room-fan', 'blast-chiller'] as const;
  const count = tray === undefined ? 1 : Math.max(1, Math.ceil(levelOf(tray.shape, batch.litres) / 50));
  return [
    ...inPot.map((mediumId) => methodOf(batch, { mediumId, vesselName: pot.name, vessel: pot.shape, count: 1 }, limit)),
    ...(tray === undefined
      ? []
      : inTrays.map((mediumId) =>
          methodOf(batch, { mediumId, vesselName: tray.name, vessel: tray.shape, count }, limit),
        )),
  ].filter((m) => m !== undefined);
}

/** "1 h 35" */
export const longWords = (minutes: number | undefined): string => {
  if (minutes === undefined) return 'never';
  const whole = Math.round(minutes);
  return whole < 60 ? `${whole} min` : `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, '0')}`;
};
