/** What somebody opened last on this tablet, the latest first: offered before anything is typed. */
export interface Recent {
  readonly to: string;
  readonly name: string;
  readonly room: string;
}

const MOST = 12;
const shelf = (personId: string): string => `zabrik-recent/${personId}`;

export function recentOf(personId: string): readonly Recent[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(shelf(personId)) ?? '[]');
    return Array.isArray(kept) ? (kept as Recent[]).filter((r) => typeof r.to === 'string') : [];
  } catch {
    return []; // a browser that keeps nothing
  }
}

/** Something was opened: it comes first, once. */
export function opened(personId: string, thing: Recent): void {
  const now = [thing, ...recentOf(personId).filter((r) => r.to !== thing.to)].slice(0, MOST);
  try {
    localStorage.setItem(shelf(personId), JSON.stringify(now));
  } catch {
    // a browser that keeps nothing
  }
}
