/**
 * The units a house reads and writes in. Inside, everything is milligrams, litres and hundredths of a degree Celsius; what is shown and what is typed goes
 * through here. Whose units hold at this moment is told from outside, once (`unitsComeFrom`): a page is of one house, a server knows who asks.
 */

export const massSystems = ['metric', 'imperial'] as const;
export const temperatureScales = ['C', 'F'] as const;
export const volumeSystems = ['litres', 'us', 'imperial'] as const;
export const clocks = ['24', '12'] as const;
export const dateOrders = ['day-first', 'month-first'] as const;
export const decimalSigns = ['point', 'comma'] as const;

export interface Units {
  /** Grams and kilograms, or ounces and pounds. */
  readonly mass: (typeof massSystems)[number];
  readonly temperature: (typeof temperatureScales)[number];
  /** Litres, or the quarts and gallons of either side of the ocean. */
  readonly volume: (typeof volumeSystems)[number];
  readonly clock: (typeof clocks)[number];
  readonly dates: (typeof dateOrders)[number];
  readonly decimal: (typeof decimalSigns)[number];
}

export const usualUnits: Units = {
  mass: 'metric',
  temperature: 'C',
  volume: 'litres',
  clock: '24',
  dates: 'day-first',
  decimal: 'point',
};

let source: () => Units = () => usualUnits;
/** Says where the units of the moment come from. Of a process, once. */
export const unitsComeFrom = (told: () => Units): void => {
  source = told;
};
export const unitsNow = (): Units => source();

/** Exactly: 0.45359237 kg; 231 cubic inches and 4.54609 l. Source: NIST Handbook 44, Appendix C; UK Units of Measurement Regulations 1995. */
export const GRAMS_PER_POUND = 453.59237;
export const GRAMS_PER_OUNCE = GRAMS_PER_POUND / 16;
export const LITRES_PER_GALLON = { us: 3.785411784, imperial: 4.54609 } as const;

/** "2,860" or, where a comma is the decimal sign, "2 860,5": thousands by a thin space. Written out: an Intl formatter takes a slow tablet a tenth of a second. */
export const formatCount = (value: number, decimals = 0): string => {
  const comma = unitsNow().decimal === 'comma';
  const [whole = '', rest] = value.toFixed(decimals).split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, comma ? '\u202f' : ',');
  return rest === undefined ? grouped : `${grouped}${comma ? ',' : '.'}${rest}`;
};

/** A unit of the inside that a field can ask for. */
export type FieldUnit = 'g' | 'kg' | 'l' | 'ml' | '°C';
const isFieldUnit = (unit: string): unit is FieldUnit => ['g', 'kg', 'l', 'ml', '°C'].includes(unit);

interface Scale {
  readonly name: string;
  readonly factor: number;
  readonly offset: number;
}

function scaleOf(unit: string): Scale {
  const same = { name: unit, factor: 1, offset: 0 };
  if (!isFieldUnit(unit)) return same;
  const { mass, temperature, volume } = unitsNow();
  if (unit === '°C') return temperature === 'C' ? same : { name: '°F', factor: 9 / 5, offset: 32 };
  if (unit === 'g') return mass === 'metric' ? same : { name: 'oz', factor: 1 / GRAMS_PER_OUNCE, offset: 0 };
  if (unit === 'kg') return mass === 'metric' ? same : { name: 'lb', factor: 1_000 / GRAMS_PER_POUND, offset: 0 };
  if (volume === 'litres') return same;
  const gallon = LITRES_PER_GALLON[volume];
  return unit === 'l'
    ? { name: 'qt', factor: 4 / gallon, offset: 0 }
    : { name: 'fl oz', factor: (volume === 'us' ? 128 : 160) / gallon / 1_000, offset: 0 };
}

/** What a unit of the inside is called in the house: "g" -> "oz", "°C" -> "°F". Others stay. */
export const unitName = (unit: string): string => scaleOf(unit).name;
/** A figure in a unit of the inside as the house reads it. @example toHouse('°C', 63) -> 145.4 in °F */
export const toHouse = (unit: string, value: number): number => value * scaleOf(unit).factor + scaleOf(unit).offset;
/** And back. */
export const fromHouse = (unit: string, value: number): number => (value - scaleOf(unit).offset) / scaleOf(unit).factor;

const trimmed = (value: number, decimals: number): string => {
  const written = value.toFixed(decimals);
  return (written.includes('.') ? written.replace(/\.?0+$/, '') : written).replace(
    '.',
    unitsNow().decimal === 'comma' ? ',' : '.',
  );
};

/**
 * A figure of the inside as a field that asks for this unit shows it, for typing over: bare, in the house's unit and with its decimal sign.
 *
 * @example figureTyped('°C', 1.2, 1) -> "1.2"; in °F "34.2"
 */
export const figureTyped = (unit: FieldUnit, value: number, decimals: number): string =>
  trimmed(toHouse(unit, value), decimals);

/**
 * A mass as a field shows it, for typing over: a bare figure in the house's small unit.
 *
 * Keeps   to a thousandth of an ounce; in grams to the milligram, but below a kilogram to a hundredth, since there three figures behind a point may be
 *         kilograms: 15 mg at most.
 * @example massTyped(160_000) -> "160"; in ounces "5.644"
 */
export const massTyped = (mg: number): string =>
  unitsNow().mass === 'metric' ? trimmed(mg / 1_000, mg >= 1_000_000 ? 3 : 2) : trimmed(toHouse('g', mg / 1_000), 3);

/**
 * The bare figure that a scale shows: whole grams, or tenths of an ounce, which are about its step.
 *
 * @example massFigure(1_372_000) -> "1,372"; in ounces "48.4"
 */
export const massFigure = (mg: number): string =>
  (unitsNow().mass === 'metric'
    ? formatCount(Math.round(mg / 1_000))
    : formatCount(toHouse('g', mg / 1_000), 1)
  ).replace('-', '−');

const meant = (C: number, F?: number): string =>
  trimmed(F !== undefined && unitsNow().temperature === 'F' ? F : toHouse('°C', C), 1).replace('-', '−');

/**
 * A temperature that is meant, not read: no more figures than it has. `F`: what its document says in Fahrenheit, which is not always what the Celsius figure
 * comes to.
 *
 * @example formatDegrees(63) -> "63 °C"; "145.4 °F"; formatDegrees(57, 135) -> "57 °C"; "135 °F"
 */
export const formatDegrees = (C: number, F?: number): string => `${meant(C, F)} ${unitName('°C')}`;
/** From one to another. @example formatDegreesRange(54, 75) -> "54 to 75 °C" */
export const formatDegreesRange = (low: number, high: number): string => `${meant(low)} to ${formatDegrees(high)}`;
