import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { act, cleanup, renderHook } from '@testing-library/react';
import type { Cutting } from '@zabrik/contract';
import { type CuttingEvent, type CuttingEventBody, grams, readCutting } from '@zabrik/core';
import { type ReactNode, useState } from 'react';
import { afterEach, expect, it, vi } from 'vitest';
import type { AtBoard } from './useCutting.ts';
import { usePortions } from './usePortions.ts';

// a worker that is slow to answer: what it is asked after the first time it never answers

vi.mock('./usePlanner.ts', async () => {
  const { planPiece } = await import('./planner.ts');
  const { useRef } = await import('react');
  return {
    usePlanner: (request: Parameters<typeof planPiece>[0] | undefined) => {
      const first = useRef({ to: JSON.stringify(request), answer: request && planPiece(request) });
      return { answer: first.current.answer, late: JSON.stringify(request) !== first.current.to };
    },
  };
});

afterEach(cleanup);

const cutting = {
  id: 'c',
  kind: 'portions',
  species: null,
  category: 'white-fish-fillet',
  pieceId: null,
  pieces: 2,
  startMg: grams(600),
  inputs: [
    { lotId: 'l', code: 'L', name: 'fillets', massMg: grams(600), allergens: [], pieceMg: [grams(300), grams(300)] },
  ],
} as unknown as Cutting;

function useBoard() {
  const [events, setEvents] = useState<readonly CuttingEvent[]>([]);
  const board: AtBoard = {
    cutting,
    state: readCutting(events),
    refused: [],
    waiting: 0,
    closing: false,
    unsent: new Set(),
    record: (body: CuttingEventBody) => {
      const id = crypto.randomUUID();
      setEvents((before) => [...before, { id, at: '2026-11-24T10:00:00Z', by: 'Ines', body } as CuttingEvent]);
      return id;
    },
  };
  return { flow: usePortions(board), board };
}

function open() {
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false, staleTime: Number.POSITIVE_INFINITY } },
  });
  const wrapper = ({ children }: { readonly children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  );
  return renderHook(useBoard, { wrapper }).result;
}

const weigh = (result: ReturnType<typeof open>, g: number): void => {
  act(() => result.current.flow.taking.setTyping(String(g)));
  act(() => result.current.flow.taking.takeTyped());
};

it('a weight taken before the marks have moved is that of the next cut, not of the one before it', () => {
  const result = open();
  const targetG = (result.current.flow.setup.sizes[0]?.targetMg ?? 0) / 1_000;
  for (let i = 0; i < 40 && result.current.flow.no === 1 && !result.current.flow.finished; i += 1) {
    const { flow } = result.current;
    weigh(
      result,
      flow.measures.massMg / 1_000 - flow.got.reduce((sum, g) => sum + g.massMg, 0) / 1_000 < targetG ? 10 : targetG,
    );
  }
  const { weights } = result.current.board.state;
  expect(weights.length).toBeGreaterThan(1);
  for (const [i, w] of weights.entries()) expect(w.fromMm, `cut ${i + 1}`).toBe(i === 0 ? 0 : weights[i - 1]?.toMm);
  // and the second piece begins at its own thick end
  expect(result.current.flow.no).toBe(2);
  weigh(result, targetG);
  const [first] = result.current.board.state.weights.filter((w) => w.piece === 2);
  expect(first).toMatchObject({ fromMm: 0, line: result.current.flow.setup.sizes[0]?.id });
  expect(first?.toMm).toBeLessThan(result.current.flow.measures.lengthMm);
});

it('a piece squared at its thick end goes on after that end; the end at its tail ends it', () => {
  const result = open();
  act(() => result.current.flow.change({ ...result.current.flow.setup, squareMm: [12, 0] }));
  weigh(result, 9);
  const [squared] = result.current.board.state.weights;
  expect(squared).toMatchObject({ line: 'end', fromMm: 0 });
  expect(squared?.toMm).toBeGreaterThanOrEqual(12);
  expect(result.current.flow.finished).toBe(false);
  expect(result.current.flow.no).toBe(1);
  expect(result.current.flow.taking.says).toBe('Ends: 9 g.');
  // and the next cut begins where that end stopped
  weigh(result, (result.current.flow.setup.sizes[0]?.targetMg ?? 0) / 1_000);
  expect(result.current.board.state.weights[1]).toMatchObject({ piece: 1, fromMm: squared?.toMm });
  for (let i = 0; i < 40 && result.current.flow.no === 1; i += 1) {
    const { flow } = result.current;
    const leftG = (flow.measures.massMg - flow.got.reduce((sum, g) => sum + g.massMg, 0)) / 1_000;
    weigh(result, Math.max(1, Math.min(leftG - 1, (flow.setup.sizes[0]?.targetMg ?? 0) / 1_000)));
  }
  const own = result.current.board.state.weights.filter((w) => w.piece === 1);
  expect(own.at(-1)?.toMm).toBeGreaterThanOrEqual(result.current.board.state.pieces.get(1)?.lengthMm ?? 999);
  expect(result.current.flow.no).toBe(2);
});
