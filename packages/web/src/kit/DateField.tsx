import { format, isValid, parseISO } from 'date-fns';
import { Field, type FieldProps } from './Field.tsx';

interface Props extends Omit<FieldProps, 'type' | 'unit' | 'label'> {
  readonly label: string;
  /** What stands in it, where the form knows: it is said as a day of the week as well, which is how a kitchen thinks. */
  readonly day?: string | undefined;
}

/** "Thursday 3 December" of 2026-12-03; nothing of what is no day. */
export function weekdayWords(day: string | undefined): string | undefined {
  if (day === undefined || !/^\d{4}-\d{2}-\d{2}$/.test(day)) return undefined;
  const at = parseISO(day);
  return isValid(at) ? format(at, 'EEEE d MMMM') : undefined;
}

/** A day of the calendar, by the device's own picker or typed. It takes what react-hook-form registers. */
export const DateField = ({ day, hint, ...rest }: Props) => (
  <Field type="date" hint={weekdayWords(day) ?? hint} {...rest} />
);
