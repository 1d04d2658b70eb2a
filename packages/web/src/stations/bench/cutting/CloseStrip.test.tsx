import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import type { Cutting } from '@zabrik/contract';
import { grams } from '@zabrik/core';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { CloseStrip } from './CloseStrip.tsx';
import type { useCuttingClose } from './useCuttingClose.ts';

afterEach(cleanup);

type Closing = ReturnType<typeof useCuttingClose>;
const input = (lotId: string, name: string, g: number): Cutting['inputs'][number] =>
  ({
    lotId,
    code: `${lotId}-K`,
    name,
    massMg: grams(g),
    allergens: [],
    pieceMg: [],
  }) satisfies Cutting['inputs'][number];

function open(verdict: 'short' | 'gain', unaccountedG: number, inputs: Cutting['inputs']) {
  const finish = vi.fn();
  const closing = {
    asking: true,
    pending: false,
    balance: { verdict, unaccountedMg: grams(unaccountedG), allowedMg: grams(12), gainMg: 0, missing: null },
    finish,
    goOn: vi.fn(),
  } as unknown as Closing;
  render(<CloseStrip closing={closing} startMg={grams(1_131)} inputs={inputs} />);
  return finish;
}
const button = (name: string) => screen.getByRole('button', { name }) as HTMLButtonElement;

describe('closing a cutting that is short', () => {
  it('puts the rest of one lot back with one touch', () => {
    const finish = open('short', 398, [input('a', 'brill', 688)]);
    expect(screen.getByText('398 g of 1,131 g is not weighed.')).toBeTruthy();
    fireEvent.click(button('The rest goes back uncut'));
    expect(finish).toHaveBeenCalledWith({ leftMg: grams(398), unbalancedReason: null });
  });

  it('of two unlike lots asks who weighed them what is left of each, until it adds up', () => {
    const finish = open('short', 398, [input('a', 'brill', 688), input('b', 'farce', 443)]);
    expect(button('The rest goes back uncut').disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('Left of brill a-K'), { target: { value: '392' } });
    expect(screen.getByText(/392 g of 398 g said/)).toBeTruthy();
    // 6 g off is within what drip and scale explain
    expect(button('The rest goes back uncut').disabled).toBe(false);
    fireEvent.change(screen.getByLabelText('Left of brill a-K'), { target: { value: '200' } });
    expect(button('The rest goes back uncut').disabled).toBe(true);
    fireEvent.change(screen.getByLabelText('Left of farce b-K'), { target: { value: '198' } });
    fireEvent.click(button('The rest goes back uncut'));
    expect(finish).toHaveBeenCalledWith({
      leftMg: grams(398),
      left: [
        { lotId: 'a', massMg: grams(200) },
        { lotId: 'b', massMg: grams(198) },
      ],
      unbalancedReason: null,
    });
  });

  it('two lots of one kind are not asked about apart', () => {
    open('short', 398, [input('a', 'brill', 688), input('b', 'brill', 443)]);
    expect(screen.queryByRole('group', { name: 'What is left of each' })).toBeNull();
    expect(button('The rest goes back uncut').disabled).toBe(false);
  });

  it('a gain puts nothing back, and closes only with a reason', () => {
    const finish = open('gain', -40, [input('a', 'brill', 688)]);
    expect(screen.getByText('What was weighed is 40 g more than lay there.')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'The rest goes back uncut' })).toBeNull();
    expect(button('Finish all the same').disabled).toBe(true);
    fireEvent.click(button('A tray was not tared'));
    fireEvent.click(button('Finish all the same'));
    expect(finish).toHaveBeenCalledWith({ leftMg: 0, unbalancedReason: 'A tray was not tared' });
  });
});
