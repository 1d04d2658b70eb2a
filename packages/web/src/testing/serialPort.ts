import { vi } from 'vitest';

/** A serial line a test holds: what it says comes as a scale's text would, in pieces. */
export class FakePort {
  #sent: ReadableStreamDefaultController<Uint8Array> | undefined;
  opened = 0;
  /** Refused the next times it is opened. */
  inUse = false;
  baudRate = 0;
  readable: ReadableStream<Uint8Array> | null = null;

  open = vi.fn(({ baudRate }: { readonly baudRate: number }): Promise<void> => {
    if (this.inUse) return Promise.reject(new Error('in use'));
    this.opened += 1;
    this.baudRate = baudRate;
    this.readable = new ReadableStream({
      start: (controller) => {
        this.#sent = controller;
      },
    });
    return Promise.resolve();
  });

  close = vi.fn((): Promise<void> => {
    this.readable = null;
    return Promise.resolve();
  });

  says(text: string): void {
    this.#sent?.enqueue(new TextEncoder().encode(text));
  }

  /** Its plug is drawn. */
  pull(): void {
    this.#sent?.error(new Error('The device has been lost.'));
  }
}
