import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { StillHere } from '../parts/StillHere.tsx';
import { open as openScreen } from '../testing/open.tsx';
import { useKeptDocument, useKeptForm } from './keptForm.ts';

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

interface Plate {
  readonly name: string;
  readonly parts: readonly string[];
}
const blank: Plate = { name: '', parts: [] };
let known: readonly string[] = [];
function Document() {
  const {
    doc,
    put,
    set,
    wrong,
    send: hand,
    kept,
    clear,
  } = useKeptDocument<Plate>('d', blank, ({ name, parts }) => [
    ...(name === '' ? ['It has a name.'] : []),
    ...parts.filter((p) => !known.includes(p)).map((p) => `Nobody knows ${p}.`),
  ]);
  return (
    <>
      <StillHere draft={kept} />
      <input aria-label="Name" value={doc.name} onChange={(e) => put({ name: e.target.value })} />
      <button type="button" onClick={() => set((before) => ({ ...before, parts: [...before.parts, 'leek'] }))}>
        More
      </button>
      <p>{doc.parts.join('+')}</p>
      <ul>
        {wrong.map((w) => (
          <li key={w}>{w}</li>
        ))}
      </ul>
      <button
        type="button"
        onClick={() =>
          hand((read) => {
            sent(read);
            clear();
          })
        }
      >
        Send
      </button>
    </>
  );
}

describe('a kept document', () => {
  const more = (): void => void fireEvent.click(screen.getByRole('button', { name: 'More' }));
  it('says nothing is wrong before it is sent, all of it once it is, by what is known now, and goes whole', async () => {
    known = [];
    openScreen(<Document />);
    more();
    more();
    await screen.findByText('leek+leek');
    expect(screen.queryAllByRole('listitem')).toHaveLength(0);
    send();
    await screen.findByText('It has a name.');
    expect(screen.getAllByText('Nobody knows leek.')).not.toHaveLength(0);
    expect(sent).not.toHaveBeenCalled();
    type('Name', 'soup');
    await waitFor(() => expect(screen.queryByText('It has a name.')).toBeNull());
    send();
    expect(sent).not.toHaveBeenCalled();
    known = ['leek'];
    send();
    await waitFor(() => expect(sent).toHaveBeenCalledExactlyOnceWith({ name: 'soup', parts: ['leek', 'leek'] }));
    await waitFor(() => expect(box('Name').value).toBe(''));
    expect(Object.keys(localStorage).filter((key) => key.includes('draft'))).toEqual([]);
  });
  it('stands as it was left, and begins anew when asked', async () => {
    openScreen(<Document />).unmount();
    openScreen(<Document />);
    expect(screen.queryByTestId('still-here')).toBeNull();
    more();
    type('Name', 'soup');
    cleanup();
    openScreen(<Document />);
    expect(box('Name').value).toBe('soup');
    expect(screen.getByText('leek')).toBeTruthy();
    await act(async () => fireEvent.click(screen.getByRole('button', { name: 'Begin anew' })));
    expect(box('Name').value).toBe('');
  });
});
