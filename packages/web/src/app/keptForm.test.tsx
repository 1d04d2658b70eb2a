import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { StillHere } from '../parts/StillHere.tsx';
import { open as openScreen } from '../testing/open.tsx';
import { useKeptForm } from './keptForm.ts';

const schema = z.object({
  name: z.string().trim().min(1, 'What it is called'),
  mass: z
    .string()
    .refine((text) => text === '' || Number(text) > 0, 'A weight')
    .transform(Number),
});
const sent = vi.fn();

function Form() {
  const { register, handleSubmit, formState, kept, clear } = useKeptForm('f', schema, { name: '', mass: '' });
  return (
    <form
      onSubmit={(event) =>
        void handleSubmit((read) => {
          sent(read);
          clear();
        })(event)
      }
    >
      <StillHere draft={kept} />
      <input aria-label="Name" {...register('name')} />
      <input aria-label="Mass" {...register('mass')} />
      <p>{formState.errors.name?.message}</p>
      <p>{formState.errors.mass?.message}</p>
      <button type="submit">Send</button>
    </form>
  );
}

const box = (label: string) => screen.getByLabelText<HTMLInputElement>(label);
const type = (label: string, value: string): void => void fireEvent.change(box(label), { target: { value } });
const send = (): void => void fireEvent.click(screen.getByRole('button', { name: 'Send' }));

beforeEach(() => {
  localStorage.clear();
  sent.mockClear();
});
afterEach(cleanup);

describe('a kept form', () => {
  it('says what means nothing as it is typed, what is missing when it is sent, and sends neither', async () => {
    openScreen(<Form />);
    type('Mass', 'much');
    await screen.findByText('A weight');
    expect(screen.queryByText('What it is called')).toBeNull();
    type('Mass', '31');
    await waitFor(() => expect(screen.queryByText('A weight')).toBeNull());
    send();
    await screen.findByText('What it is called');
    expect(sent).not.toHaveBeenCalled();
    type('Name', ' hake ');
    send();
    await waitFor(() => expect(sent).toHaveBeenCalledExactlyOnceWith({ name: 'hake', mass: 31 }));
  });

  it('stands as it was left, says so, and begins anew when asked', async () => {
    const first = openScreen(<Form />);
    type('Name', 'hake');
    first.unmount();
    openScreen(<Form />);
    expect(box('Name').value).toBe('hake');
    await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Begin anew' })));
    expect(box('Name').value).toBe('');
    cleanup();
    openScreen(<Form />);
    expect(box('Name').value).toBe('');
    expect(screen.queryByTestId('still-here')).toBeNull();
  });

  it('sent is gone, from the screen and from the tablet', async () => {
    openScreen(<Form />);
    type('Name', 'hake');
    send();
    await waitFor(() => expect(box('Name').value).toBe(''));
    expect(Object.keys(localStorage).filter((key) => key.includes('draft'))).toEqual([]);
  });
});
