/** Limits in words: their figure with its unit, and the name of their topic. */
import { formatCount, formatDegrees, fromHouse, type Limit, readDecimal, toHouse, unitsNow } from '@zabrik/core';

const hours = (h: number): string => (h < 1 ? `${Math.round(h * 60)} min` : `${h} h`);
const seconds = (s: number): string =>
  s === 0 ? 'at once' : s < 120 ? `${s} s` : s < 7_200 ? `${Math.round(s / 60)} min` : `${formatCount(s / 3_600, 1)} h`;
const degrees = (C: number, F: number | undefined): string =>
  unitsNow().temperature === 'F'
    ? `${F === undefined ? formatDegrees(C) : `${F} °F`} (${Number(C.toFixed(1))} °C)`
    : `${formatDegrees(C)}${F === undefined ? '' : ` (${F} °F)`}`;

/** What a figure of the house's own is in, where a limit has one figure. */
export const figureUnit = (limit: Limit): string =>
  limit.kind === 'max_temp' || limit.kind === 'min_temp' ? '°C' : limit.kind === 'shelf_life' ? 'days' : 'h';
/** A figure as the house types it. */
export const figureTyped = (limit: Limit, figure: number): string =>
  String(Number(toHouse(figureUnit(limit), figure).toFixed(2)));
/** And back: NaN for what is none. */
export const figureRead = (limit: Limit, text: string): number => {
  const typed = readDecimal(text);
  // as the document's own Celsius where it was typed so; a hundredth of a degree else, as probes are kept
  return figureUnit(limit) === '°C' ? Math.round(fromHouse('°C', typed) * 100) / 100 : typed;
};

/** The figure of a limit as a cook would say it; a rule without a figure in its own words. */
export function figureWords(limit: Limit): string {
  switch (limit.kind) {
    case 'max_temp':
      return `at most ${degrees(limit.value.max_C, limit.value.max_F)}`;
    case 'min_temp':
      return `at least ${degrees(limit.value.min_C, limit.value.min_F)}`;
    case 'cook_time_temp': {
      const [first, ...rest] = limit.value.points;
      if (first === undefined) return '';
      return `${degrees(first.T_C, first.T_F)} for ${seconds(first.t_s)}${rest.length > 0 ? `, or ${rest.length} other points of the table` : ''}`;
    }
    case 'freeze_treatment':
      return limit.value.options.map((o) => `${degrees(o.hold_C, undefined)} for ${hours(o.hold_h)}`).join(', or ');
    case 'cooling':
      return `${limit.value.start_C === null ? '' : `from ${formatDegrees(limit.value.start_C)} `}${limit.value.steps.map((s) => `to ${formatDegrees(s.to_C)} within ${hours(s.within_min / 60)}`).join(', ')}`;
    case 'shelf_life':
      return `${limit.value.max_days} days${limit.value.at_max_C === undefined ? '' : ` at most ${formatDegrees(limit.value.at_max_C)}`}${
        (limit.value.day_of_preparation_is ?? limit.value.day_of_opening_is) === 0
          ? ', the day itself not counted'
          : ', the day itself is day one'
      }`;
    case 'exposure':
      return `${hours(limit.value.max_h)} above ${formatDegrees(limit.value.above_C)}${
        limit.value.then_max_h === undefined
          ? ''
          : `, ${hours(limit.value.then_max_h)} once above ${formatDegrees(limit.value.if_any_above_C ?? 0)}`
      }`;
    case 'time_limit':
      return `${hours(limit.value.max_h)} at most`;
    case 'sampling_plan':
      return `${limit.value.n} samples, at most ${limit.value.c} above ${limit.value.m}, none above ${limit.value.M}`;
    default: {
      const rule = limit.value['rule'] ?? limit.value['published'];
      if (typeof rule === 'string') return rule;
      const list = limit.value['items'] ?? limit.value['require'] ?? limit.value['accept'];
      if (Array.isArray(list)) return list.map(String).join('; ');
      const days = limit.value['days'];
      return typeof days === 'number' ? `${days} days` : 'see the document';
    }
  }
}

/** "cold-holding" -> "Cold holding" */
export const topicName = (topic: string): string =>
  `${topic.charAt(0).toUpperCase()}${topic.slice(1).replaceAll('-', ' ')}`;
