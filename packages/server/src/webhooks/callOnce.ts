import type { HookCall } from '@zabrik/contract';
import { Webhook } from 'standardwebhooks';

/** Who does not answer in this time is tried again later. */
const WAIT_MS = 10_000;

/**
 * Calls an address once: a POST of JSON, signed by the open Standard Webhooks scheme (`webhook-id`, `webhook-timestamp`, `webhook-signature`: v1,
 * HMAC-SHA256 in base64 over id, time and body). The id is the same whenever the call is tried again, so that who has had it can tell. Nothing of what
 * is answered is read, and it is followed nowhere else.
 *
 * @returns null when it was taken (2xx), else a sentence that says why not
 */
export async function callOnce(
  { url, secret }: { readonly url: string; readonly secret: string },
  id: string,
  at: Date,
  call: HookCall,
): Promise<string | null> {
  const body = JSON.stringify(call);
  try {
    const response = await fetch(url, {
      method: 'POST',
      redirect: 'manual',
      signal: AbortSignal.timeout(WAIT_MS),
      headers: {
        'content-type': 'application/json',
        'user-agent': 'zabrik',
        'webhook-id': id,
        'webhook-timestamp': String(Math.floor(at.getTime() / 1_000)),
        'webhook-signature': new Webhook(secret).sign(id, at, body),
      },
      body,
    });
    await response.body?.cancel();
    if (response.ok) return null;
    return response.status >= 300 && response.status < 400
      ? `It leads somewhere else (${response.status}); that is not followed.`
      : `It answered ${response.status}.`;
  } catch (error) {
    return error instanceof Error && error.name === 'TimeoutError'
      ? `No answer in ${WAIT_MS / 1_000} seconds.`
      : 'It cannot be reached.';
  }
}
