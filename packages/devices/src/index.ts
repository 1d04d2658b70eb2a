export { PanPhysics, type PanReading, type PanSettings } from './panPhysics.ts';
export { formatReading, parseReading, type ReadingLine, type ScaleState } from './scaleLine.ts';
export { type SimulatedScaleSettings, startSimulatedScale } from './simulatedScale.ts';
