/** How mass leaves a lot other than by the knife or the pot, and why it is thrown away. */
export const takeOutSinks = ['served', 'staff', 'waste'] as const;
export const wasteReasons = [
  'spoiled',
  'over-trimmed',
  'dropped',
  'over-ordered',
  'inedible-part',
  'shot-damage',
  'returned',
  'tasting',
] as const;
