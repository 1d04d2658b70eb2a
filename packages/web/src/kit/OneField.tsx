import { type ReactNode, useState } from 'react';
import { Button, type ButtonProps } from './Button.tsx';
import { Field, type FieldProps } from './Field.tsx';

interface Props<T> extends Omit<FieldProps, 'name' | 'value' | 'defaultValue' | 'onChange' | 'form'> {
  /** What was typed, read; undefined while it is nothing that could be sent. */
  readonly read: (text: string) => T | undefined;
  readonly onSend: (read: T, text: string) => void;
  /** Words of the button. */
  readonly send: ReactNode;
  readonly sending?: Pick<ButtonProps, 'variant' | 'size' | 'className'>;
  readonly pending?: boolean;
  /** It stands empty again once it was sent: for what is said time and again. */
  readonly again?: boolean;
  /** What stands there from the beginning. */
  readonly start?: string;
  /** What stands before the field, and after the button. */
  readonly before?: ReactNode;
  readonly beside?: ReactNode;
  readonly formClass?: string;
  /** Names the form where its field alone does not. */
  readonly formLabel?: string;
}

/** Words, without the blanks around them; undefined while there are none. */
export const someWords = (text: string): string | undefined => (text.trim() === '' ? undefined : text.trim());

/**
 * One thing that is typed and sent, by Enter or by its button, which waits until there is something to send. Forms of more are `useKeptForm`'s; this one stands at the
 * bench as well, which loads nothing it can do without.
 */
export function OneField<T>({
  read,
  onSend,
  send,
  sending = {},
  pending = false,
  again = false,
  start = '',
  before,
  beside,
  formClass = 'flex gap-1.5',
  formLabel,
  ...field
}: Props<T>) {
  const [typed, setTyped] = useState(start);
  const found = read(typed);
  const sendIt = (): void => {
    if (found === undefined || pending) return;
    if (again) setTyped('');
    onSend(found, typed.trim());
  };
  return (
    <form
      className={formClass}
      aria-label={formLabel}
      onSubmit={(event) => {
        event.preventDefault();
        // it may stand over another form
        event.stopPropagation();
        sendIt();
      }}
    >
      {before}
      <Field {...field} value={typed} onChange={(event) => setTyped(event.target.value)} />
      <Button type="submit" {...sending} disabled={pending || found === undefined}>
        {send}
      </Button>
      {beside}
    </form>
  );
}
