import { fitProfile } from './pieceProfile.ts';
import { type PieceTemplate, usualLength } from './pieceTemplate.ts';
import { type CutWish, planCuts } from './planCuts.ts';

/** A size class a supplier sells whole animals in; milligrams. */
export interface Grade {
  readonly id: string;
  readonly minMg: number;
  readonly maxMg: number;
}

export interface GradeNeed {
  readonly gradeId: string;
  /** Whole animals for the portions wanted, counted at nine weights across the grade. */
  readonly animals: number;
  readonly portionsEach: number;
  /** Of all the flesh, what ends up as ends and as more than was asked for. */
  readonly endShare: number;
  readonly giveAwayShare: number;
}

/**
 * How many animals of each grade give the portions wanted, and which grade leaves the least odd ends.
 *
 * Shapes  share: what one piece is of the whole animal; pieces: how many such pieces an animal has.
 * Keeps   nine animals spread evenly over a grade stand for it; grades that give no portion are left out. Least ends first.
 */
export function animalsNeeded(
  template: PieceTemplate,
  grades: readonly Grade[],
  share: number,
  pieces: number,
  wish: CutWish,
  wanted: number,
): readonly GradeNeed[] {
  const [size] = wish.sizes;
  if (size === undefined || wanted < 1) return [];
  return grades
    .flatMap((grade): GradeNeed[] => {
      let [portions, endMg, giveMg, allMg] = [0, 0, 0, 0];
      for (let i = 0; i < 9; i += 1) {
        const pieceMg = ((grade.minMg + ((grade.maxMg - grade.minMg) * (i + 0.5)) / 9) * share) / pieces;
        const plan = planCuts(fitProfile(template, { massMg: pieceMg, lengthMm: usual(template, pieceMg) }), {
          ...wish,
          sizes: [{ ...size, most: null }],
        });
        portions += plan.portions.length * pieces;
        endMg += plan.endMg * pieces;
        giveMg += plan.giveAwayMg * pieces;
        allMg += pieceMg * pieces;
      }
      if (portions === 0) return [];
      return [
        {
          gradeId: grade.id,
          animals: Math.ceil((wanted * 9) / portions - 1e-9),
          portionsEach: portions / 9,
          endShare: endMg / allMg,
          giveAwayShare: giveMg / allMg,
        },
      ];
    })
    .sort((a, b) => a.endShare + a.giveAwayShare - b.endShare - b.giveAwayShare);
}

const usual = (template: PieceTemplate, massMg: number): number => Math.max(10, usualLength(template, massMg));
