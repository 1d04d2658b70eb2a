/** A figure held against a limit by hand: what is asked, and what the limit says to it. */
import {
  judgeCooking,
  judgeFreezing,
  judgeSamples,
  judgeTemperature,
  judgeTime,
  type Limit,
  lastDay,
  parseTemperature,
  readDecimal,
  type Verdict,
} from '@zabrik/core';

export interface Asked {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
}

const temperature = { id: 'C', name: 'As read', unit: '°C' };

/** The figures a limit is judged by; none for one that is no figure, or that its own log judges. */
export function askedOf(limit: Limit): readonly Asked[] {
  switch (limit.kind) {
    case 'max_temp':
    case 'min_temp':
      return [temperature];
    case 'cook_time_temp':
      return [
        { ...temperature, name: 'Core' },
        { id: 's', name: 'Held for', unit: 's' },
      ];
    case 'freeze_treatment':
      return [
        { ...temperature, name: 'Coldest all through' },
        { id: 'h', name: 'Held for', unit: 'h' },
        ...(limit.value.thickness_max_cm === undefined ? [] : [{ id: 'cm', name: 'Thickest', unit: 'cm' }]),
      ];
    case 'time_limit':
      return [
        { id: 'h', name: 'So long', unit: 'h' },
        ...(limit.value.start_max_C === undefined ? [] : [{ ...temperature, id: 'start', name: 'At the start' }]),
        ...(limit.value.never_above_C === undefined ? [] : [{ ...temperature, id: 'peak', name: 'At its warmest' }]),
      ];
    case 'sampling_plan':
      return [{ id: 'results', name: `Results, ${limit.value.n} asked for`, unit: 'cfu/g or as the limit' }];
    case 'shelf_life':
      return [{ id: 'day', name: 'Made or opened on', unit: 'YYYY-MM-DD' }];
    default:
      return [];
  }
}

/**
 * What a limit says to the figures typed; undefined while one cannot be read. Of a shelf life, the last day.
 *
 * Keeps   what is left empty is not known: never within by it.
 */
export function heldAgainst(
  limit: Limit,
  typed: Readonly<Record<string, string>>,
): Verdict | { readonly lastDay: string } | undefined {
  const number = (id: string): number => readDecimal(typed[id] ?? '');
  const celsius = (id: string): number => {
    try {
      return parseTemperature(typed[id] ?? '') / 100;
    } catch {
      return Number.NaN;
    }
  };
  const missing = askedOf(limit).some((a) => (typed[a.id] ?? '').trim() === '');
  switch (limit.kind) {
    case 'max_temp':
    case 'min_temp':
      return missing ? undefined : judgeTemperature(limit, { C: celsius('C') });
    case 'cook_time_temp':
      return missing ? undefined : judgeCooking(limit, { C: celsius('C') }, number('s'));
    case 'freeze_treatment':
      return missing
        ? undefined
        : judgeFreezing(limit, {
            freezeC: celsius('C'),
            holdC: celsius('C'),
            holdHours: number('h'),
            // frozen "until solid" is for the log that saw it; by hand nobody has shown it
            solid: false,
            ...(limit.value.thickness_max_cm === undefined ? {} : { thicknessCm: number('cm') }),
          });
    case 'time_limit':
      return missing
        ? undefined
        : judgeTime(limit, {
            hours: number('h'),
            ...(limit.value.start_max_C === undefined ? {} : { startC: celsius('start') }),
            ...(limit.value.never_above_C === undefined ? {} : { peakC: celsius('peak') }),
          });
    case 'sampling_plan':
      return missing
        ? undefined
        : judgeSamples(
            limit,
            (typed['results'] ?? '')
              .trim()
              .split(/[\s;]+/)
              .map(readDecimal),
          );
    case 'shelf_life':
      try {
        return missing ? undefined : { lastDay: lastDay(limit, (typed['day'] ?? '').trim()) };
      } catch {
        return undefined;
      }
    default:
      return undefined;
  }
}
