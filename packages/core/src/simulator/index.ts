export {
  type CoverageRow,
  coverageOfPots,
  coverageOfShares,
  coverageOfStages,
  coverageOfUnits,
  potCases,
  shareCases,
  stageCases,
  unitCases,
} from './coverage.ts';
export { type AnimalDraw, type DrawnAnimal, drawAnimal, splitIntoUnits } from './drawAnimal.ts';
export { type CutResult, cutByLength, cutByRuler, type DrawnFillet, drawFillet } from './drawFillet.ts';
export {
  kitchenHistory,
  type SimulatedBreakdown,
  type SimulatedCutter,
  type SimulatedItem,
  type SimulatedSupplier,
  type SimulatedWeighing,
  type SimulatorSettings,
} from './kitchenHistory.ts';
export { type Random, seededRandom } from './random.ts';
