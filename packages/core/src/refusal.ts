/**
 * A refusal of the core: an expected failure with a code from a closed list and the figures behind it.
 * The core never words it for a person; whoever shows it does (contract/src/problems.ts).
 */
export type RefusalCode =
  | 'not_a_mass'
  | 'not_a_volume'
  | 'not_a_price'
  | 'ambiguous_mass'
  | 'ambiguous_price'
  | 'not_a_temperature'
  | 'no_pieces'
  | 'no_usable_mass'
  | 'not_a_length'
  | 'not_a_figure'
  | 'more_than_water_holds'
  | 'credit_exceeds_cost'
  | 'not_a_lot_code'
  | 'not_a_box_code'
  | 'nothing_accepted'
  | 'shares_do_not_sum'
  | 'too_many_pieces'
  | 'no_such_form'
  | 'no_such_stage'
  | 'label_too_small';

export class Refusal extends Error {
  readonly code: RefusalCode;
  readonly data: Readonly<Record<string, string | number>>;

  constructor(code: RefusalCode, data: Readonly<Record<string, string | number>> = {}) {
    super(code);
    this.name = 'Refusal';
    this.code = code;
    this.data = data;
  }
}

/**
 * Lets through what a sum can be done with.
 *
 * Errors  `not_a_figure`, naming the first that is no finite number, or is not above the least it may be.
 */
export function mustBeFigures(figures: Readonly<Record<string, number>>, above = Number.NEGATIVE_INFINITY): void {
  for (const [name, value] of Object.entries(figures))
    if (!Number.isFinite(value) || value <= above) throw new Refusal('not_a_figure', { name, value: String(value) });
}
