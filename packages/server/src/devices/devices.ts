import type { ScaleBridge } from '../scale/scaleBridge.ts';
import type { DeviceAddress } from './askDevice.ts';

/** The devices of one house on this machine. */
export interface Devices {
  /** The scales that are connected, by the name the house gives them. */
  readonly scales: ReadonlyMap<string, ScaleBridge>;
  readonly probe: DeviceAddress | undefined;
  readonly printer: DeviceAddress | undefined;
}

/** What every other house on the machine has: it types. */
export const noDevices: Devices = { scales: new Map(), probe: undefined, printer: undefined };
