/** What a house may change of a limit: one figure of it, said who and why; the document's own figure is kept beside it. */
import type { Limit } from './limit.ts';

/** The one figure of a limit that a house may set, in the limit's own unit; undefined where there is none. */
export function figureOf(limit: Limit): number | undefined {
  switch (limit.kind) {
    case 'max_temp':
      return limit.value.max_C;
    case 'min_temp':
      return limit.value.min_C;
    case 'shelf_life':
      return limit.value.max_days;
    case 'time_limit':
    case 'exposure':
      return limit.value.max_h;
    default:
      return undefined;
  }
}

/**
 * The limit with the house's figure. A figure in Fahrenheit that stood beside it goes: it would no longer be the same limit.
 *
 * @example a limit of at most 5 °C (41 °F) with 4 -> at most 4 °C
 */
export function withFigure(limit: Limit, figure: number): Limit {
  switch (limit.kind) {
    case 'max_temp':
      return { ...limit, value: { max_C: figure } };
    case 'min_temp':
      return { ...limit, value: { min_C: figure } };
    case 'shelf_life':
      return { ...limit, value: { ...limit.value, max_days: Math.round(figure) } };
    case 'time_limit':
      return { ...limit, value: { ...limit.value, max_h: figure } };
    case 'exposure': {
      const { then_max_h: shorter, ...value } = limit.value;
      // the shorter time of a warm reading is never longer than the house's own
      return {
        ...limit,
        value: { ...value, max_h: figure, ...(shorter === undefined ? {} : { then_max_h: Math.min(shorter, figure) }) },
      };
    }
    default:
      return limit;
  }
}

/** Whether a house's figure lets through what the document's does not. */
export function isLooser(limit: Limit, figure: number): boolean {
  const published = figureOf(limit);
  if (published === undefined) return false;
  return limit.kind === 'min_temp' ? figure < published : figure > published;
}
