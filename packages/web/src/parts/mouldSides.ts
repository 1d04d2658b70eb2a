import type { Mould } from '@zabrik/core';

export type MouldSide = 'lengthMm' | 'topMm' | 'bottomMm' | 'heightMm' | 'diameterMm';

/** What is measured of a mould of each form, inside. */
export const mouldSides: Readonly<Record<Mould['kind'], readonly (readonly [side: MouldSide, label: string])[]>> = {
  terrine: [
    ['lengthMm', 'Long'],
    ['topMm', 'Wide at the rim'],
    ['bottomMm', 'Wide at the bottom'],
    ['heightMm', 'Deep'],
  ],
  ring: [
    ['diameterMm', 'Across'],
    ['heightMm', 'Deep'],
  ],
  dariole: [
    ['topMm', 'Across at the rim'],
    ['bottomMm', 'Across at the bottom'],
    ['heightMm', 'Deep'],
  ],
  dome: [['diameterMm', 'Across']],
  gutter: [
    ['lengthMm', 'Long'],
    ['diameterMm', 'Across'],
  ],
};
