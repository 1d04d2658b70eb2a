import type { Judged, Lot } from '@zabrik/contract';
import { formsHistamine, isShellfish, type Limit, type Species } from '@zabrik/core';

/** The usual cautions that matter for a lot, by what it is and how it is kept. */
export function cautionsOf(
  species: Species | undefined,
  lot: Pick<Lot, 'category' | 'state' | 'held' | 'kind'>,
): string[] {
  const game = species?.group === 'feathered-game' || species?.group === 'furred-game';
  return [
    ...(lot.held === null ? [] : ['recall']),
    ...(formsHistamine(species) ? ['scombroid'] : []),
    ...(isShellfish(species) ? ['molluscs'] : []),
    ...(game && lot.kind !== 'batch' ? ['shot'] : []),
    ...(lot.category === 'crab-brown-meat' ? ['crab.brown'] : []),
  ];
}

/** How long the tag of shellfish is kept, where the profile says it. */
export function tagWords(limits: readonly Limit[], species: Species | undefined, lot: Pick<Lot, 'kind'>): Judged[] {
  if (!isShellfish(species) || lot.kind !== 'delivery') return [];
  return limits.flatMap((l): Judged[] => {
    if (l.kind !== 'retention') return [];
    const days = l.value['days'];
    if (!/tag|bivalve|shell/.test(l.id) || typeof days !== 'number') return [];
    return [
      {
        limitId: l.id,
        about: 'receiving',
        verdict: 'not-judged',
        says: `keep the tag ${days} days after the last of it was served`,
        document: `${l.citation.document} ${l.citation.section}`,
        certainty: l.certainty,
      },
    ];
  });
}
