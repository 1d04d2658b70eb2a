import type { QueryClient } from '@tanstack/react-query';
import { meQuery } from '../app/queries.ts';
import type { ReadsAt } from '../app/screenAt.ts';

/**
 * What the loader of a screen does: it asks for the script and the reads side by side, and waits for neither. The screen stands at once and says what it
 * waits for, on a slow network too; what was read a moment ago is not asked for again; and who is not signed in has nothing to read.
 */
export const beginOf =
  (client: QueryClient, reads: ReadsAt) =>
  (
    path: string,
    params: Readonly<Record<string, string | undefined>>,
    load: (() => Promise<unknown>) | undefined,
  ): void => {
    if (client.getQueryData(meQuery.queryKey) == null) return;
    void load?.().catch(() => undefined); // the screen itself says what did not come
    for (const read of reads[path]?.(params) ?? []) void client.prefetchQuery(read);
  };
