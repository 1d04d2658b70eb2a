import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { dueWords } from '../app/dates.ts';
import { NumberPad } from '../kit/NumberPad.tsx';
import { trays } from './destinations.ts';
import { Pan } from './Pan.tsx';
import { Ribbon } from './Ribbon.tsx';
import { Tray } from './Tray.tsx';

afterEach(cleanup);

describe('the ribbon', () => {
  it('gives each piece the length of its grams and hatches what is left', () => {
    const pick = vi.fn();
    render(
      <Ribbon
        totalMg={1_000_000}
        parts={[
          { id: 'a', name: 'head', destination: 'stock', massMg: 250_000 },
          { id: 'pan', name: 'on the pan', destination: 'portion', massMg: 500_000, onPan: true },
        ]}
        onPick={pick}
      />,
    );
    const head = screen.getByRole('button', { name: 'head, 250 g, stock' });
    expect(head.style.width).toBe('25%');
    expect(screen.queryByRole('button', { name: /pan/ })).toBeNull(); // nothing to put right before it is taken
    expect(screen.getByText('250 g left')).toBeTruthy();
    fireEvent.click(head);
    expect(pick).toHaveBeenCalledWith('a');
  });
});

describe('the pan', () => {
  const reading = {
    scale: 'bench',
    state: 'steady',
    grossMg: 1_080_000,
    tareMg: 412_000,
    netMg: 668_000,
    settled: 4,
    at: 0,
  } as const;
  const shown = (o: Partial<Parameters<typeof Pan>[0]['reading']>, takenAt?: number) => {
    render(<Pan reading={{ ...reading, ...o }} expected={undefined} takenAt={takenAt} />);
    return screen.getByTestId('pan').textContent;
  };

  it('shows net, steadiness and tare', () => {
    expect(shown({})).toBe('668grams, steadytray tared off, 412 g');
  });

  it('says when a weight was taken, when it moves, and when there is no scale', () => {
    expect(shown({}, 4)).toContain('grams, taken');
    cleanup();
    expect(shown({ state: 'moving' }, 4)).toContain('moving');
    cleanup();
    expect(shown({ state: 'away' })).toContain('type the weight');
  });
});

describe('a tray', () => {
  it('that must not be used says why and cannot be chosen', () => {
    const choose = vi.fn();
    render(
      <Tray
        id="stock"
        name="Stock"
        hotkey="2"
        massMg={0}
        fill={0}
        state="refused"
        note="Gills turn a stock bitter"
        disabled={false}
        onChoose={choose}
      />,
    );
    const tray = screen.getByRole('button', { name: /Not this piece: Gills turn a stock bitter/ });
    fireEvent.click(tray);
    expect(choose).not.toHaveBeenCalled();
  });

  it('has a key of its own for each destination', () => {
    expect(new Set(trays.map((t) => t.key)).size).toBe(8);
  });
});

describe('the number pad', () => {
  it('gives digits one by one', () => {
    const digits: string[] = [];
    render(
      <NumberPad
        label="PIN"
        onDigit={(d) => digits.push(d)}
        onBack={() => digits.pop()}
        onDone={() => undefined}
        doneLabel="Sign in"
        doneDisabled
      />,
    );
    for (const name of ['2', '4', 'Take back the last digit', '0'])
      fireEvent.click(screen.getByRole('button', { name }));
    expect(digits).toEqual(['2', '0']);
  });
});

describe('a use-by date', () => {
  const now = new Date(2026, 10, 24, 14, 30);

  it.each([
    ['2026-11-22', '2 days past', 'late'],
    ['2026-11-23', 'was yesterday', 'late'],
    ['2026-11-24', 'last day today', 'now'],
    ['2026-11-25', 'tomorrow', 'soon'],
    ['2026-11-27', 'Friday', 'fine'],
    [null, 'no date', 'none'],
  ] as const)('%s is %s', (day, text, tone) => {
    expect(dueWords(day, now)).toEqual({ text, tone });
  });
});
