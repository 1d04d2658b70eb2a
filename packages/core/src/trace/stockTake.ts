import type { TracedMovement } from './lineage.ts';

/**
 * A stock-take writes every lot it puts right as one movement. Nothing went from a lot that was short into one that was over: each is a
 * movement of its own between the lot and the count. Any other movement is left as it is.
 */
export const eachAlone = (movement: TracedMovement): readonly TracedMovement[] =>
  movement.kind !== 'count'
    ? [movement]
    : movement.postings.flatMap(({ lotId, massMg }) =>
        lotId === null
          ? []
          : [
              {
                ...movement,
                id: `${movement.id}/${lotId}`,
                postings: [
                  { lotId, sink: null, reason: null, massMg },
                  {
                    lotId: null,
                    sink: 'count',
                    reason: movement.postings.find((p) => p.sink === 'count' && p.massMg === -massMg)?.reason ?? null,
                    massMg: -massMg,
                  },
                ],
              },
            ],
      );
