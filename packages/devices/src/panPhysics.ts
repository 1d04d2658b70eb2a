import type { ScaleState } from './scaleLine.ts';

export interface PanSettings {
  readonly intervalMg: number;
  readonly maxMg: number;
  /** How fast the load cell follows the load: the gap shrinks to 1/e in this time. */
  readonly lagMs: number;
  /** Sd of the raw signal, milligrams. */
  readonly noiseMg: number;
  /** The reading must stay within half an interval for this long to be called steady. */
  readonly restMs: number;
}

export interface PanReading {
  readonly state: ScaleState;
  readonly grossMg: number;
  readonly tareMg: number;
  readonly netMg: number;
  readonly settled: number;
}

/** Between one load and the next the pan is empty for a moment. */
const HAND_MS = 240;

/**
 * What a bench scale makes of the loads put on it: it lags, trembles, comes to rest, rounds to its interval, and refuses to tare
 * while moving. Time and chance are passed in, so a test moves both by hand.
 */
export class PanPhysics {
  readonly #settings: PanSettings;
  readonly #normal: () => number;
  #loadMg = 0;
  #cellMg = 0;
  #zeroMg = 0;
  #tareMg = 0;
  /** How long the pan is still empty while a hand changes what lies on it. */
  #handMs = 0;
  #restingMs = 0;
  #settled = 0;
  #steady = false;

  constructor(settings: PanSettings, normal: () => number) {
    this.#settings = settings;
    this.#normal = normal;
  }

  /** Puts exactly this on the pan, in place of what was there. The pan moves even when the mass is the same. */
  load(massMg: number): void {
    this.#loadMg = massMg;
    // a hand takes off what was there before it puts the next thing on
    this.#cellMg = 0;
    this.#handMs = HAND_MS;
    this.#restingMs = 0;
    this.#steady = false;
  }

  tick(elapsedMs: number): PanReading {
    const { lagMs, noiseMg, restMs, intervalMg, maxMg } = this.#settings;
    const emptied = this.#handMs > 0;
    this.#handMs = Math.max(0, this.#handMs - elapsedMs);
    const onIt = emptied ? 0 : this.#loadMg;
    this.#cellMg += (onIt - this.#cellMg) * (1 - Math.exp(-elapsedMs / lagMs));
    const near = !emptied && Math.abs(this.#loadMg - this.#cellMg) < intervalMg / 2;
    this.#restingMs = near ? this.#restingMs + elapsedMs : 0;
    const rests = near && this.#restingMs >= restMs;
    if (rests && !this.#steady) this.#settled += 1;
    this.#steady = rests;
    const signal = (rests ? this.#loadMg : this.#cellMg + noiseMg * this.#normal()) - this.#zeroMg;
    const grossMg = Math.round(signal / intervalMg) * intervalMg;
    const state =
      signal > maxMg + 9 * intervalMg ? 'over' : signal < -20 * intervalMg ? 'under' : rests ? 'steady' : 'moving';
    return { state, grossMg, tareMg: this.#tareMg, netMg: grossMg - this.#tareMg, settled: this.#settled };
  }

  /** Takes what stands on the pan as tare. Refused while it moves or is empty. */
  tare(): 'done' | 'moving' | 'nothing' {
    if (!this.#steady) return 'moving';
    const gross = Math.round((this.#loadMg - this.#zeroMg) / this.#settings.intervalMg) * this.#settings.intervalMg;
    if (gross <= 0) return 'nothing';
    this.#tareMg = gross;
    return 'done';
  }

  untare(): 'done' {
    this.#tareMg = 0;
    return 'done';
  }

  /** Sets zero again, within 2 % of the maximum as a verified instrument may. */
  zero(): 'done' | 'moving' | 'too-far' {
    if (!this.#steady) return 'moving';
    if (Math.abs(this.#loadMg) > 0.02 * this.#settings.maxMg) return 'too-far';
    this.#zeroMg = this.#loadMg;
    this.#tareMg = 0;
    return 'done';
  }
}
