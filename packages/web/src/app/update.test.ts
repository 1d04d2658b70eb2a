import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { watchTyping } from './update.ts';

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  document.body.innerHTML = '';
});
const SECOND = 1_000;

describe('a new version', () => {
  const waiting = () => {
    const take = vi.fn();
    const busy = vi.fn(() => false);
    watchTyping()({ take, busy });
    return { take, busy };
  };

  it('is taken two minutes after the last touch, once', () => {
    const { take } = waiting();
    vi.advanceTimersByTime(100 * SECOND);
    dispatchEvent(new Event('pointerdown'));
    vi.advanceTimersByTime(115 * SECOND);
    expect(take).not.toHaveBeenCalled();
    vi.advanceTimersByTime(10 * SECOND);
    expect(take).toHaveBeenCalledTimes(1);
    vi.advanceTimersByTime(600 * SECOND);
    expect(take).toHaveBeenCalledTimes(1);
  });

  it('waits as long as something is on its way', () => {
    const { take, busy } = waiting();
    busy.mockReturnValue(true);
    vi.advanceTimersByTime(600 * SECOND);
    expect(take).not.toHaveBeenCalled();
    busy.mockReturnValue(false);
    vi.advanceTimersByTime(5 * SECOND);
    expect(take).toHaveBeenCalled();
  });

  it('waits as long as something is typed and not sent, or the caret stands in a field', () => {
    document.body.innerHTML = '<input id="a"><input type="search" id="b"><button id="c">x</button>';
    const [field, search, button] = ['#a', '#b', '#c'].map((id) => document.querySelector(id) as HTMLInputElement);
    const { take } = waiting();
    const type = (into: HTMLInputElement | undefined, text: string): void => {
      if (into === undefined) return;
      into.value = text;
      into.dispatchEvent(new Event('input', { bubbles: true }));
    };
    type(field, '13');
    vi.advanceTimersByTime(600 * SECOND);
    expect(take).not.toHaveBeenCalled();
    type(field, '');
    type(search, 'hake');
    field?.focus();
    vi.advanceTimersByTime(600 * SECOND);
    expect(take).not.toHaveBeenCalled();
    button?.focus();
    vi.advanceTimersByTime(5 * SECOND);
    expect(take).toHaveBeenCalledTimes(1);
  });

  it('does not wait for a form that is gone', () => {
    document.body.innerHTML = '<textarea id="a"></textarea>';
    const { take } = waiting();
    const field = document.querySelector('textarea') as HTMLTextAreaElement;
    field.value = 'a note';
    field.dispatchEvent(new Event('input', { bubbles: true }));
    vi.advanceTimersByTime(600 * SECOND);
    expect(take).not.toHaveBeenCalled();
    field.remove();
    vi.advanceTimersByTime(5 * SECOND);
    expect(take).toHaveBeenCalledTimes(1);
  });

  it('waits for what was typed before it came', () => {
    document.body.innerHTML = '<textarea></textarea>';
    const field = document.querySelector('textarea') as HTMLTextAreaElement;
    const whenQuiet = watchTyping();
    field.value = 'a note';
    field.dispatchEvent(new Event('input', { bubbles: true }));
    const take = vi.fn();
    whenQuiet({ take, busy: () => false });
    vi.advanceTimersByTime(600 * SECOND);
    expect(take).not.toHaveBeenCalled();
  });
});
