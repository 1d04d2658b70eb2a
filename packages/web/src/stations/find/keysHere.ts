/** The keys of the screen that stands there: each thing on it says its own. */
export interface KeyHere {
  readonly key: string;
  readonly does: string;
}

const nameOf = (el: Element): string => {
  const label = el.getAttribute('aria-label');
  if (label !== null) return label;
  const copy = el.cloneNode(true) as Element;
  for (const mark of copy.querySelectorAll('kbd')) mark.remove();
  // what stands in parts of its own is read with a space between them
  return [...copy.childNodes]
    .map((n) => n.textContent?.trim() ?? '')
    .filter((t) => t !== '')
    .join(' ');
};

/** In the order in which they stand; what cannot be pressed now is left out, and of two on one key the first counts. */
export function keysHere(page: ParentNode): KeyHere[] {
  const keys = new Map<string, string>();
  for (const el of page.querySelectorAll('[aria-keyshortcuts]:not(:disabled)')) {
    const key = el.getAttribute('aria-keyshortcuts') ?? '';
    const does = nameOf(el);
    if (does !== '' && !keys.has(key)) keys.set(key, does);
  }
  return [...keys].map(([key, does]) => ({ key, does }));
}
