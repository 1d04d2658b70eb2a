export { PanPhysics, type PanReading, type PanSettings } from './panPhysics.ts';
export {
  formatReading,
  type Plate,
  parsePlate,
  parseReading,
  type ReadingLine,
  type ScaleState,
  scaleRefusals,
} from './scaleLine.ts';
export { type PrintedJob, type SimulatedPrinterSettings, startSimulatedPrinter } from './simulatedPrinter.ts';
export { PROBE_ERROR_CENTI_C, type SimulatedProbeSettings, startSimulatedProbe } from './simulatedProbe.ts';
export { type SimulatedScaleSettings, startSimulatedScale } from './simulatedScale.ts';
