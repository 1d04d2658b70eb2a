import type { FetchQueryOptions } from '@tanstack/react-query';
import type { ComponentType } from 'react';

/** A read as its screen makes it. */
export type Read = Pick<FetchQueryOptions, 'queryKey'> & {
  readonly queryFn: () => Promise<unknown>;
  readonly staleTime?: number;
};

/** What the screens open with, by their path and the ids in their address: apart from the screens, so that the first lines that run stay few. */
export type ReadsAt = Readonly<
  Record<string, (params: Readonly<Record<string, string | undefined>>) => readonly Read[]>
>;

/** A screen of a station: where it stands, what it is called on the browser's tab, and its script. */
export interface ScreenAt {
  /** With :name for each part that is an id. */
  readonly path: string;
  readonly title: string;
  /** It stands alone, without the bar of stations, and nobody need be signed in. */
  readonly bare?: boolean;
  readonly script: () => Promise<{ default: ComponentType }>;
}

export interface Found {
  readonly screen: ScreenAt;
  readonly params: Readonly<Record<string, string>>;
}

const parts = (path: string): string[] => path.split('/').filter((part) => part !== '');

/**
 * The screen an address belongs to; of two that fit the one with fewer ids in it.
 *
 * @example /larder/tubs -> that of the tubs, though /larder/:lotId fits as well
 */
export function screenFor(screens: readonly ScreenAt[], address: string): Found | undefined {
  const given = parts(address);
  const found = screens.flatMap((screen): (Found & { readonly ids: number })[] => {
    const own = parts(screen.path);
    if (own.length !== given.length || !own.every((part, i) => part.startsWith(':') || part === given[i])) return [];
    const named = own.flatMap((part, i) => (part.startsWith(':') ? [[part.slice(1), given[i] ?? ''] as const] : []));
    return [{ screen, params: Object.fromEntries(named), ids: named.length }];
  });
  return found.sort((a, b) => a.ids - b.ids)[0];
}
