/**
 * Commands that must not be lost: each is a record of its own in IndexedDB, kept until the server has it. One tab sends, in the
 * order they were made; the key makes a repeat harmless. What the server refuses stays here, in words, until someone has read it.
 */
export interface Waiting {
  readonly key: string;
  readonly madeAt: number;
  readonly url: string;
  readonly body: unknown;
  /** What belongs together on a screen: the breakdown's id. */
  readonly about: string;
  readonly says: string;
  readonly tries: number;
  readonly refused?: string;
}
declare let whenSent: (waiting: Waiting, answer: unknown) => void;
export declare function drain(): void;
/** Keeps a command. When this returns it is on disk, and only then may a screen say it is saved here. */
export declare function keep(command: Omit<Waiting, 'madeAt' | 'tries'>): Promise<void>;
/** Someone has read why it was refused: it may go. */
export declare function dismiss(key: string): Promise<void>;
export declare function onSent(handler: typeof whenSent): void;
export declare const useOutbox: () => readonly Waiting[];
export declare function startOutbox(): void;
//# sourceMappingURL=outbox.d.ts.map
