/** The devices of the houses on this machine: where each answers, and the lines to the scales. */
import type { ScaleReading } from '@zabrik/contract';
import { ScaleBridge } from '../scale/scaleBridge.ts';
import type { DeviceAddress } from './askDevice.ts';

export const addressOf = (text: string): DeviceAddress => {
  const at = text.lastIndexOf(':');
  return { host: text.slice(0, at), port: Number(text.slice(at + 1)) };
};

/** What one house says of its devices, or the start command for it. */
export interface DevicesSaid {
  /** Addresses by the name the house gives each scale. */
  readonly scales: Readonly<Record<string, string>>;
  readonly probe: string | undefined;
  readonly printer: string | undefined;
}

/** The devices of one house. */
export interface Devices {
  /** The scales that are listened to, by the name the house gives them. */
  readonly scales: ReadonlyMap<string, ScaleBridge>;
  readonly probe: DeviceAddress | undefined;
  readonly printer: DeviceAddress | undefined;
  /** Every reading of every scale from now on, of those that come later too. Gives the way to stop. */
  readonly subscribe: (listener: (reading: ScaleReading) => void) => () => void;
}

/** A house that types. */
export const noDevices: Devices = {
  scales: new Map(),
  probe: undefined,
  printer: undefined,
  subscribe: () => () => undefined,
};

/** The devices of a house as it says now: what stays where it was keeps its line, what moves gets another, what goes says that it is away. */
export class HouseDevices implements Devices {
  readonly #listeners = new Set<(reading: ScaleReading) => void>();
  readonly #at = new Map<string, string>();
  readonly scales = new Map<string, ScaleBridge>();
  probe: DeviceAddress | undefined;
  printer: DeviceAddress | undefined;

  subscribe(listener: (reading: ScaleReading) => void): () => void {
    this.#listeners.add(listener);
    return () => {
      this.#listeners.delete(listener);
    };
  }

  standAt({ scales, probe, printer }: DevicesSaid): void {
    this.probe = probe === undefined ? undefined : addressOf(probe);
    this.printer = printer === undefined ? undefined : addressOf(printer);
    for (const [id, bridge] of this.scales) {
      if (scales[id] === this.#at.get(id)) continue;
      bridge.close();
      this.scales.delete(id);
      this.#at.delete(id);
      this.#say({ ...bridge.latest, state: 'away' });
    }
    for (const [id, address] of Object.entries(scales)) {
      if (this.#at.has(id)) continue;
      const { host, port } = addressOf(address);
      const bridge = new ScaleBridge(id, host, port);
      bridge.subscribe((reading) => {
        // a line that is being closed has no say any more
        if (this.scales.get(id) === bridge) this.#say(reading);
      });
      this.scales.set(id, bridge);
      this.#at.set(id, address);
    }
  }

  close(): void {
    for (const scale of this.scales.values()) scale.close();
  }

  #say(reading: ScaleReading): void {
    for (const listener of this.#listeners) listener(reading);
  }
}
