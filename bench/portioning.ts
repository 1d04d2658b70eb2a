/** What cutting to weight must hold: plans fast enough to follow a finger, and better portions than by eye on 2,000 simulated fillets. */
import { templateById } from '@zabrik/catalogue/portioning';
import { type CutWish, fitProfile, type PieceTemplate, type PortionSize, planCuts } from '@zabrik/core';
import { cutByLength, cutByRuler, drawFillet, seededRandom } from '@zabrik/core/simulator';
import { type InTurn, inTurn } from './reference.ts';

export interface PortioningTimes {
  readonly twelve: InTurn;
  readonly five: InTurn;
  readonly fiveLimited: InTurn;
  readonly fillets: number;
  readonly rulerIn: number;
  readonly eyeIn: number;
  /** Grams a portion. */
  readonly rulerAway: number;
  readonly eyeAway: number;
}

const FILLETS = 2_000;

const template = (id: string): PieceTemplate => {
  const found = templateById.get(id);
  if (found === undefined) throw new Error(`no form ${id}`);
  return found;
};
const size = (id: string, grams: number, valueMinor: number, most: number | null = null): PortionSize => ({
  id,
  name: id,
  targetMg: grams * 1_000,
  toleranceShare: 0.05,
  valueMinor,
  most,
});
const wish = (sizes: readonly PortionSize[]): CutWish => ({
  sizes,
  angleDeg: 0,
  squareMm: [0, 0],
  kerfMm: 0,
  clingMg: 0,
  tail: 'end',
  endMinorPerKg: 600,
});

export async function portioningTimes(): Promise<PortioningTimes> {
  const loin = fitProfile(template('loin'), { massMg: 1_500_000, lengthMm: 520 });
  const two = wish([size('a', 150, 700, 6), size('b', 90, 400, 6)]);
  if (planCuts(loin, two).portions.length !== 12) throw new Error('not twelve portions');
  const side = fitProfile(template('side'), { massMg: 1_900_000, lengthMm: 700 });
  const five = (most: number | null): CutWish =>
    wish([
      size('a', 180, 900, most),
      size('b', 160, 780, most),
      size('c', 120, 560, most),
      size('d', 90, 400, most),
      size('e', 45, 180, most),
    ]);
  const t = template('fillet-round');
  const random = seededRandom('two thousand fillets');
  const main = size('main', 160, 780);
  let [ours, oursIn, oursAway, theirs, theirsIn, theirsAway] = [0, 0, 0, 0, 0, 0];
  for (let k = 0; k < FILLETS; k += 1) {
    const fillet = drawFillet(t, 420_000, 1_020_000, random);
    const n = Math.floor(fillet.measures.massMg / main.targetMg);
    const ruler = cutByRuler(t, fillet, wish([{ ...main, most: n }]), random);
    const eye = cutByLength(fillet, n, main.targetMg, main.toleranceShare, random);
    ours += ruler.portions;
    oursIn += ruler.inTolerance;
    oursAway += ruler.giveAwayMg;
    theirs += eye.portions;
    theirsIn += eye.inTolerance;
    theirsAway += eye.giveAwayMg;
  }
  return {
    twelve: await inTurn(() => planCuts(loin, two)),
    five: await inTurn(() => planCuts(side, five(null))),
    fiveLimited: await inTurn(() => planCuts(side, five(4))),
    fillets: FILLETS,
    rulerIn: oursIn / ours,
    eyeIn: theirsIn / theirs,
    rulerAway: oursAway / ours / 1_000,
    eyeAway: theirsAway / theirs / 1_000,
  };
}
