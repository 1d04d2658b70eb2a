import type { HookTopic } from '@zabrik/contract';
import { filled, key, orNull, table, text, uuid, when, whole, yes } from '../table.ts';

/** A call that is to be made, or was: written with what it tells of. */
export const WebhookCallTable = table(
  'webhook_call',
  {
    id: key(uuid),
    houseId: uuid,
    webhookId: uuid,
    topic: text<HookTopic>(),
    movementId: uuid,
    lotId: orNull(uuid),
    at: when,
    /** Not before: later and later while nobody answers. */
    dueAt: when,
    tries: filled(whole),
    endedAt: orNull(when),
    /** It got through. */
    ok: filled(yes),
  },
  { notInFile: 'calls of this server' },
);
