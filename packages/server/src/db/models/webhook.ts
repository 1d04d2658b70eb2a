import type { HookTopic } from '@zabrik/contract';
import { type Column, key, orNull, table, text, texts, uuid, when } from '../table.ts';

/** An address the house calls by itself, with the secret that signs its calls. */
export const WebhookTable = table(
  'webhook',
  {
    id: key(uuid),
    houseId: uuid,
    personId: uuid,
    name: text(),
    url: text(),
    secret: text(),
    topics: texts as Column<readonly HookTopic[]>,
    madeAt: when,
    lastOkAt: orNull(when),
    lastWhy: orNull(text()),
    endedAt: orNull(when),
  },
  { notInFile: 'secrets of this server' },
);
