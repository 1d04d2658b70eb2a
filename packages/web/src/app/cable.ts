/** Whether this device reads a scale over its own cable: kept on the device; what reads it comes when there is one. */
/** Which of the house's scales hangs on this device, and how fast its line talks. */
export interface Cable {
  readonly scaleId: string;
  readonly baudRate: number;
}

const NAME = 'zabrik-cable';

export function keptCable(): Cable | undefined {
  try {
    const { scaleId, baudRate } = JSON.parse(localStorage.getItem(NAME) ?? '{}') as Partial<Cable>;
    return scaleId === undefined || baudRate === undefined ? undefined : { scaleId, baudRate };
  } catch {
    return undefined;
  }
}

export function keepCable(cable: Cable | undefined): void {
  try {
    if (cable === undefined) localStorage.removeItem(NAME);
    else localStorage.setItem(NAME, JSON.stringify(cable));
  } catch {
    // a browser that keeps nothing is asked for its line again next time
  }
}

/** Whether this browser can: on a safe address, and where its makers have built it in. */
export const cablesHere = (): boolean => 'serial' in navigator;
