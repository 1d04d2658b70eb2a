/** How each figure is made: its words, its sum, one worked through by the app's own code, and where the method comes from. */
import {
  claimOf,
  combinedError,
  costFactor,
  equivalentMinutes,
  formatCount,
  formatDegrees,
  formatMass,
  formatMoney,
  judgeBalance,
  maximumPermissibleError,
  priceOf,
  saltForBrine,
  shareCostByCredit,
  shareCostByWeight,
} from '@zabrik/core';

export interface Figure {
  /** Stands in the address behind the #. */
  readonly id: string;
  readonly name: string;
  readonly where: string;
  readonly says: string;
  readonly sum: string;
  /** Worked through now, with figures of this house's money. */
  readonly example?: (currency: string) => string;
  readonly source: string;
}

const scale = { accuracyClass: 'III', intervalMg: 2_000, maxMg: 15_000_000 } as const;
const pct = (share: number): string => `${Math.round(share * 1_000) / 10} %`;
const kg = 1_000_000;
const fish = [
  { massMg: 1_776_000, main: true, wasted: false, creditMinorPerKg: 0 },
  { massMg: 500_000, main: false, wasted: false, creditMinorPerKg: 60 },
  { massMg: 100_000, main: false, wasted: true, creditMinorPerKg: 0 },
];

export const figures: readonly Figure[] = [
  {
    id: 'yield',
    name: 'Yield',
    where: 'Ledger, a yield sheet; Bench, the ribbon',
    says: 'What share of the start a piece is. Through several stages the shares multiply: a loin of a fillet of a fish is a share of the fish.',
    sum: 'share = piece ÷ start of the stage; through stages = share × share',
    example: () =>
      `${formatMass(1_430_000)} of ${formatMass(2_860_000)} is ${pct(1_430 / 2_860)}; a loin that is 52 % of it is ${pct(0.5 * 0.52)} of the fish.`,
    source: 'multiplying of stage yields, common practice',
  },
  {
    id: 'balance',
    name: 'What is unaccounted for',
    where: 'Bench, under the pan; the end of a stage',
    says: 'The start less all that was weighed. It may be as much as the scale can be out in all these weighings, with the usual drip and twice how far that varies. More is a piece that was not weighed; less than nothing by more than the scale can be out is a wrong weight or water.',
    sum: 'allowed = scale error + usual drip + 2 × its spread',
    example: () => {
      const weighed = [1_430_000, 900_000, 480_000].map((massMg) => ({ massMg, scale }));
      const b = judgeBalance({
        startMg: 2_860_000,
        startScale: scale,
        weighed,
        drip: { mean: 0.01, sd: 0.005 },
        missing: [],
      });
      return `${formatMass(2_860_000)} at the start, ${formatMass(b.weighedMg)} weighed: ${formatMass(b.unaccountedMg)} unaccounted for, ${formatMass(b.allowedMg)} may be: ${b.verdict === 'balanced' ? 'it holds' : 'it does not hold'}.`;
    },
    source: 'scale error as below; two spreads are this project’s choice',
  },
  {
    id: 'scale-error',
    name: 'How far a scale may be out',
    where: 'House, Devices; in every balance',
    says: 'Half, one or one and a half steps by how many steps the load is, twice that in service. Several weighings add up as the root of the sum of their squares.',
    sum: '√(error₁² + error₂² + …)',
    example: () =>
      `A class III scale of ${formatMass(2_000)} steps: ${formatMass(maximumPermissibleError(scale, 800_000))} at ${formatMass(800_000)}, ${formatMass(maximumPermissibleError(scale, 1_400_000))} at ${formatMass(1_400_000)}; two of ${formatMass(1_400_000)} together ${formatMass(Math.round(combinedError([1, 2].map(() => ({ massMg: 1_400_000, scale })))))}.`,
    source: 'OIML R 76-1, Table 6 and in-service limits (figures from memory); JCGM 100:2008 for adding errors up',
  },
  {
    id: 'expected',
    name: 'What a piece should weigh',
    where: 'Bench, beside the pan; advice',
    says: 'From the handbook’s share and this house’s own records of such animals: the more records, the less the handbook counts, and older ones count less. An outlier is pulled in, so that one mis-weighed fish does not move the house. In four of five the weight lies in the narrow band, in nineteen of twenty in the wide one.',
    sum: 'mean ± t × spread × √(1 + 1/n), on the share of the start',
    source:
      'random effects between groups (DerSimonian and Laird, 1986), prediction interval of a normal sample; NIST/SEMATECH e-Handbook 1.3.5.6 for the outliers; from memory',
  },
  {
    id: 'cost',
    name: 'What a piece costs',
    where: 'Yield sheet, larder, pots',
    says: 'By the school the house has chosen. By weight: every kilo that is kept costs the same. By credit: what bones and trim are worth is taken off, and the main pieces carry the rest by weight. What was thrown away costs nothing by itself: the others carry it. The shares always add up to what was paid.',
    sum: 'main pieces = paid − Σ (trim × its worth)',
    example: (currency) => {
      const paid = 9_120;
      const [main = 0, bones = 0] = shareCostByCredit(paid, fish);
      const [byWeight = 0] = shareCostByWeight(paid, fish);
      return `${formatMoney(paid, currency)} paid: ${formatMass(500_000)} of bones at ${formatMoney(60, currency)} a kilo take ${formatMoney(bones, currency)}, the fillets ${formatMoney(main, currency)}; by weight the fillets ${formatMoney(byWeight, currency)}.`;
    },
    source: 'joint products in any cost accounting text; the butcher’s yield test',
  },
  {
    id: 'factor',
    name: 'Cost factor',
    where: 'Yield sheet',
    says: 'How many times the price a kilo of the main cut costs. Tomorrow’s price times this is tomorrow’s cost.',
    sum: '(cost ÷ kilo of the main cut) ÷ (paid ÷ kilo bought)',
    example: () =>
      `2.4 kg bought at 38.00 a kilo, the main cut 1.776 kg for 89.10: ${formatCount(costFactor(91.2, 2.4, 89.1048, 1.776) ?? 0, 2)} times.`,
    source: 'the butcher’s yield test, common practice',
  },
  {
    id: 'claim',
    name: 'What is claimed of a delivery',
    where: 'Receive, a delivery',
    says: 'A difference within what the house lets scales differ is nobody’s. Beyond it all of it is claimed, at the invoice’s own price; a line that was refused is claimed whole.',
    sum: 'claim = invoice × missing ÷ invoiced weight',
    example: (currency) => {
      const line = { id: 'one', netMg: 960_000, refusedMg: 0, invoiceMg: kg, paidMinor: 780, refused: false };
      const { claimMinor } = claimOf([line], { toleranceShare: 0.01, toleranceMg: 10_000 });
      return `${formatMass(kg)} invoiced for ${formatMoney(780, currency)}, ${formatMass(960_000)} on the scale: ${formatMass(40_000)} short, ${formatMoney(claimMinor, currency)}.`;
    },
    source: 'practice of the trade; the house sets what may differ',
  },
  {
    id: 'labour',
    name: 'What work costs',
    where: 'Yield sheet, batches',
    says: 'The time the work was in somebody’s hands, without its pauses, at what an hour of that person costs, or else as the house says.',
    sum: 'minutes ÷ 60 × what an hour costs',
    example: (currency) =>
      `23 minutes at ${formatMoney(1_640, currency)} an hour: ${formatMoney(Math.round((23 / 60) * 1_640), currency)}.`,
    source: 'arithmetic',
  },
  {
    id: 'use-by',
    name: 'Last day',
    where: 'Larder, labels',
    says: 'The hours its kind keeps, counted from when it was cut in the house’s own days, and never later than that of what it was made of. Freezing and thawing count anew by the limits the house has chosen. A cook looks at it as well.',
    sum: 'the earlier of: made + its hours; last day of what it came from',
    source: 'the house’s limits, each with its document: House, Limits and cautions',
  },
  {
    id: 'brine',
    name: 'Salt in a brine',
    where: 'Pots, the calculator',
    says: 'A share of the whole brine, not of the water.',
    sum: 'salt = water × share ÷ (1 − share)',
    example: () =>
      `5 kg of water to 10 %: ${formatMass(Math.round(saltForBrine(5, 0.1) * kg))} of salt, not ${formatMass(500_000)}.`,
    source: 'definition of a share by mass',
  },
  {
    id: 'heat',
    name: 'As long at another temperature',
    where: 'Pots, cooking and chilling logs',
    says: 'What a time at one temperature is worth at another. A log is added up over its readings, and nothing is credited that nobody measured.',
    sum: 'minutes × 10^((reference − temperature) ÷ z)',
    example: () =>
      `2 minutes at ${formatDegrees(70)} are worth ${formatCount(equivalentMinutes({ refC: 70, z: 7.5, minutes: 2 }, 63), 1)} minutes at ${formatDegrees(63)} where z is 7.5.`,
    source: 'Bigelow’s model',
  },
  {
    id: 'pantry',
    name: 'What an ingredient costs',
    where: 'Pots, a batch’s cost',
    says: 'By the line of a supplier’s list it is read from, else as the house typed it. What nobody has priced is left out, and is said: the batch costs at least so much.',
    sum: 'mass × price a kilo, rounded to the smallest coin',
    example: (currency) =>
      `${formatMass(340_000)} at ${formatMoney(250, currency)} a kilo: ${formatMoney(priceOf(340_000, 250), currency)}.`,
    source: 'arithmetic',
  },
];
