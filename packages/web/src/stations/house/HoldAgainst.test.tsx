import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { limitProfiles } from '@zabrik/catalogue';
import { afterEach, describe, expect, it } from 'vitest';
import { HoldAgainst } from './HoldAgainst.tsx';

afterEach(cleanup);

const limit = (id: string) => {
  const found = limitProfiles.flatMap((p) => p.limits).find((l) => l.id === id);
  if (found === undefined) throw new Error(id);
  return found;
};
const open = (id: string): void => {
  cleanup();
  render(<HoldAgainst limit={limit(id)} />);
  fireEvent.click(screen.getByRole('button', { name: 'Hold a figure against it' }));
};
const type = (label: RegExp, value: string): void =>
  void fireEvent.change(screen.getByLabelText(label), { target: { value } });
const said = (): string => screen.getByRole('status').textContent ?? '';

describe('a figure held against a limit by hand', () => {
  // US FDA Food Code 2022, 3-401.11(A)(3): poultry at 74 °C (165 °F), instantaneous
  it('judges a core of poultry by what the document asks', () => {
    open('us.cook.poultry');
    expect(said()).toBe('');
    type(/Core/, '70');
    type(/Held for/, '600');
    expect(said()).toMatch(/outside|Not shown/i);
    type(/Core/, '74');
    type(/Held for/, '1');
    expect(said()).toMatch(/^Within/);
  });

  it('says nothing within of what is no figure', () => {
    open('us.cook.poultry');
    type(/Core/, 'hot');
    type(/Held for/, '1');
    expect(said()).not.toMatch(/^Within/);
  });

  it('closes again', () => {
    open('us.cook.poultry');
    fireEvent.click(screen.getByRole('button', { name: 'Close' }));
    expect(screen.getByRole('button', { name: 'Hold a figure against it' })).toBeTruthy();
  });
});
