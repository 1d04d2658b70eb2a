/** A command as this tablet writes it down: which endpoint, asked what, and how it is spoken of. */
import type { EndpointId } from '@zabrik/contract';
import { inNamesOfNow } from '@zabrik/contract/before';
import { commandAt } from './endpoints.ts';

export interface CommandRecord {
  /** Makes a repeat harmless. */
  readonly key: string;
  readonly endpoint: EndpointId;
  readonly params: Readonly<Record<string, string>>;
  readonly body: unknown;
  /** What belongs together on a screen: the id of what it is about. */
  readonly about: string;
  readonly says: string;
}

/** A record of this version, or of one before, which wrote an address. */
export type KeptBefore<T extends CommandRecord> = T | (Omit<T, 'endpoint' | 'params'> & { readonly url: string });

const ofNow = <T extends CommandRecord>(record: T): T => ({
  ...record,
  ...('code' in record && record.code === 'needs_a_nod' ? { code: 'needs_confirmation' } : {}),
  params: inNamesOfNow(record.params),
  body:
    typeof record.body === 'object' && record.body !== null && !Array.isArray(record.body)
      ? inNamesOfNow(record.body)
      : record.body,
});

/** The record as this version writes it; none where the address is no command's. */
export function upgraded<T extends CommandRecord>(record: KeptBefore<T>): T[] {
  if (!('url' in record)) return [ofNow(record)];
  const { url, ...rest } = record;
  const command = commandAt(url.replace('/runs/', '/batches/').replace(/\/runs$/, '/batches'));
  return command === undefined ? [] : [ofNow({ ...rest, ...command } as unknown as T)];
}
