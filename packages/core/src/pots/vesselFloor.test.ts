import { expect, it } from 'vitest';
import { floorM2 } from './vesselFloor.ts';

it('a pan of 28 cm has 616 square centimetres of floor, a tray of 53 by 32.5 has 1,722', () => {
  expect(floorM2({ kind: 'round', diameterMm: 280 }) * 1e4).toBeCloseTo(615.75, 1);
  expect(floorM2({ kind: 'long', lengthMm: 530, widthMm: 325 }) * 1e4).toBeCloseTo(1_722.5, 1);
});
