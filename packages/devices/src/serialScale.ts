import type { Plate, ReadingLine, ScaleState } from './scaleLine.ts';
import type { SerialReading } from './serialLine.ts';

/** A scale that does not say whether it rests has shown the same so long, and in so many lines. */
const REST_MS = 400;
const REST_LINES = 3;
/** One that has said nothing for so long is away: nothing is said of it until it speaks again, milliseconds. */
export const SCALE_SILENT_MS = 1_500;
/** As far as its zero may be set from where it stood when it was switched on: a share of what it can hold (OIML R 76-1, 4 %, half to either side). */
const ZERO_SHARE = 0.02;

/**
 * What a serial scale's lines come to: at rest or not, how often it came to rest, and the tare that is kept here because not every scale takes one over
 * its line. The time is passed in.
 */
export class SerialScale {
  readonly #plate: Plate;
  #grossMg = 0;
  #zeroMg = 0;
  #tareMg = 0;
  #since = 0;
  #lines = 0;
  #state: ScaleState = 'moving';
  #settled = 0;

  constructor(plate: Plate) {
    this.#plate = plate;
  }

  /** Takes what a line said. */
  take({ massMg, stable, over, under }: SerialReading, now: number): void {
    if (massMg === undefined) {
      this.#state = over || !under ? 'over' : 'under';
      this.#lines = 0;
      return;
    }
    const same = massMg === this.#grossMg && this.#lines > 0;
    if (!same) this.#since = now;
    this.#lines = same ? this.#lines + 1 : 1;
    this.#grossMg = massMg;
    const rests = stable ?? (this.#lines >= REST_LINES && now - this.#since >= REST_MS);
    const next: ScaleState =
      massMg - this.#zeroMg > this.#plate.maxMg
        ? 'over'
        : massMg - this.#zeroMg < -this.#plate.maxMg * ZERO_SHARE
          ? 'under'
          : rests
            ? 'steady'
            : 'moving';
    // at rest again, or at rest on something else without having been seen to move
    if (next === 'steady' && (this.#state !== 'steady' || !same)) this.#settled += 1;
    this.#state = next;
  }

  reading(): Omit<ReadingLine, 'count' | 'intervalMg'> {
    const grossMg = this.#grossMg - this.#zeroMg;
    return {
      state: this.#state,
      grossMg,
      tareMg: this.#tareMg,
      netMg: grossMg - this.#tareMg,
      settled: this.#settled,
    };
  }

  tare(): 'done' | 'moving' | 'nothing' {
    if (this.#state !== 'steady') return 'moving';
    const { grossMg } = this.reading();
    if (grossMg <= 0) return 'nothing';
    this.#tareMg = grossMg;
    return 'done';
  }

  untare(): 'done' {
    this.#tareMg = 0;
    return 'done';
  }

  zero(): 'done' | 'moving' | 'too-far' {
    if (this.#state !== 'steady') return 'moving';
    if (Math.abs(this.#grossMg) > this.#plate.maxMg * ZERO_SHARE) return 'too-far';
    this.#zeroMg = this.#grossMg;
    return 'done';
  }
}
