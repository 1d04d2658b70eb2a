/** Reads asked for before the app itself is here; the first call for the same address takes the answer over. */
import { routes } from '@zabrik/contract/routes';

const asked = new Map<string, Promise<Response>>();
const LATE_MS = 15_000;

export function askEarly(breakdownId: string | undefined, screen: string | undefined): void {
  const paths: string[] = [routes.access.me.path, routes.house.read.path];
  if (breakdownId !== undefined && screen?.startsWith('/bench/') === true)
    paths.push(routes.bench.read.path.replace(':breakdownId', encodeURIComponent(breakdownId)));
  for (const path of paths) {
    const answer = fetch(`/api/v1${path}`, { signal: AbortSignal.timeout(LATE_MS) });
    answer.catch(() => undefined); // whoever takes it over hears of it
    asked.set(`/api/v1${path}`, answer);
  }
}

/** The answer to a read that was asked for early: once. */
export function takeEarly(url: string): Promise<Response> | undefined {
  const answer = asked.get(url);
  asked.delete(url);
  return answer;
}
