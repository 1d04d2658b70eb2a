import { useQueryClient } from '@tanstack/react-query';
import type { Cutting, Lot } from '@zabrik/contract';
import type { CuttingKind } from '@zabrik/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { v7 as uuidv7 } from 'uuid';
import { dueWords } from '../../../app/dates.ts';
import { api } from '../../../app/endpoints.ts';
import { keep } from '../../../app/outbox.ts';
import { useMe } from '../../../app/queries.ts';
import { cuttingKey } from './useCutting.ts';

/** As much of a lot as it takes to lay it on the board. */
type ToCut = Pick<
  Lot,
  'id' | 'code' | 'name' | 'species' | 'category' | 'pieceId' | 'allergens' | 'freePieces' | 'freeMg' | 'useBy'
>;

interface Begun {
  readonly kind: CuttingKind;
  readonly lots: readonly ToCut[];
}

/**
 * Puts lots on the board and opens it at once: what the server says to it comes when it can. A lot past its date is asked about first,
 * here, since the board opens without the server too.
 */
export function useBegin() {
  const [late, setLate] = useState<Begun | undefined>();
  const client = useQueryClient();
  const navigate = useNavigate();
  const { data: me } = useMe();
  const open = ({ kind, lots }: Begun, confirmed: boolean): void => {
    const id = uuidv7();
    const at = new Date().toISOString();
    const provisional: Cutting = {
      id,
      kind,
      state: 'open',
      name: [...new Set(lots.map((l) => l.name))].join(' and '),
      species: lots.every((l) => l.species === lots[0]?.species) ? (lots[0]?.species ?? null) : null,
      category: lots[0]?.category ?? null,
      pieceId: lots.every((l) => l.pieceId === lots[0]?.pieceId) ? (lots[0]?.pieceId ?? null) : null,
      pieces: lots.reduce((sum, l) => sum + l.freePieces, 0),
      startMg: lots.reduce((sum, l) => sum + l.freeMg, 0),
      weighedMg: 0,
      by: me?.person.name ?? '',
      startedAt: at,
      closedAt: null,
      inputs: lots.map((l) => ({
        lotId: l.id,
        code: l.code,
        name: l.name,
        massMg: l.freeMg,
        allergens: l.allergens,
        pieceMg: [],
      })),
      startMinor: 0,
      movementId: null,
      events: [],
      lots: [],
    };
    client.setQueryData(cuttingKey(id), provisional);
    void keep(
      api.cutting.start,
      { body: { id, kind, from: lots.map((l) => ({ lotId: l.id, massMg: null })), at, confirmed } },
      { about: id, says: `${provisional.name} to be cut` },
    );
    void navigate(`/bench/cut/${id}`);
  };
  return {
    begin: (kind: CuttingKind, lots: readonly ToCut[]): void => {
      if (lots.some((l) => dueWords(l.useBy).tone === 'late')) setLate({ kind, lots });
      else open({ kind, lots }, false);
    },
    late: late && { lots: late.lots.filter((l) => dueWords(l.useBy).tone === 'late') },
    goOn: (): void => {
      if (late !== undefined) open(late, true);
    },
    leave: (): void => setLate(undefined),
  };
}

export type Begin = ReturnType<typeof useBegin>;
