/** What reads a scale's serial line, wherever the line comes in: at the bridge, or at a tablet whose browser has Web Serial. */
export { type Plate, scaleRefusals } from './scaleLine.ts';
export { Lines, readSerialLine, type SerialReading } from './serialLine.ts';
export { SCALE_SILENT_MS, SerialScale } from './serialScale.ts';
