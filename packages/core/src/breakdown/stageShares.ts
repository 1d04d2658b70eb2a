import { Refusal } from '../refusal.ts';
import type { CutPlan, PlanPiece, PlanStage, Species } from './plan.ts';
import { startOf } from './planQuestions.ts';

export interface PieceShare {
  readonly pieceId: string;
  readonly mean: number;
  readonly sd: number;
}

const shareOfWhole = (species: Species, form: string): number | undefined => {
  if (species.forms.some((f) => f.id === form && f.whole)) return 1;
  const whole = species.forms.find((f) => f.whole)?.id;
  return species.yields.find((y) => y.from === whole && y.to === form)?.share.mean;
};

/**
 * What share of the stage's start each piece of a plan should be, for this species bought in this form.
 *
 * A plan's shares are written for its first species and first form. For another species the pieces that add up to one
 * of its own published yields take that yield, sharing it in proportion; for another form, pieces the form arrives without are
 * left out; all others, and the drip, are scaled to the remainder in proportion. Later stages keep the plan's shares, those a form enters
 * at among them: they are of the piece that enters them, whatever animal it came from.
 *
 * Shapes  result: one entry per piece present, in plan order; the drip as `drip`.
 * Keeps   means and drip sum to 1. An sd scales with its mean.
 * Errors  `no_such_form`: the plan does not start from this form.
 * Source  the scaling rule is common practice: take the main cut from the species' own yield, then test cuts.
 */
export function stageShares(
  plan: CutPlan,
  stage: PlanStage,
  species: Species,
  form: string,
): { readonly pieces: readonly PieceShare[]; readonly drip: { readonly mean: number; readonly sd: number } } {
  const start = startOf(plan, species.id, form);
  if (start === undefined) throw new Refusal('no_such_form', { plan: plan.id, form });
  const startOfWhole = shareOfWhole(species, form);
  const present = stage.pieces.filter((piece) => piece.absentIn?.includes(form) !== true);
  const known = new Map<string, number>();
  const [reference] = plan.starts;
  const first = stage.id === plan.stages[0]?.id;
  if (first && start.at === undefined && (species.id !== reference?.species || form !== reference.forms[0])) {
    for (const piece of present) {
      const own = piece.yieldForm === undefined ? undefined : shareOfWhole(species, piece.yieldForm);
      if (own === undefined || startOfWhole === undefined) continue;
      const together = present.filter((p) => p.yieldForm === piece.yieldForm).reduce((sum, p) => sum + p.share.mean, 0);
      known.set(piece.id, ((own / startOfWhole) * piece.share.mean) / together);
    }
  }
  const fixed = [...known.values()].reduce((a, b) => a + b, 0);
  const free = present.filter((p) => !known.has(p.id)).reduce((a, p) => a + p.share.mean, stage.drip.mean);
  const factor = (1 - fixed) / free;
  const scaled = (piece: PlanPiece): PieceShare => {
    const mean = known.get(piece.id) ?? piece.share.mean * factor;
    return { pieceId: piece.id, mean, sd: (piece.share.sd * mean) / piece.share.mean };
  };
  return {
    pieces: present.map(scaled),
    drip: { mean: stage.drip.mean * factor, sd: stage.drip.sd * factor },
  };
}
