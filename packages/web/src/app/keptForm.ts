import { zodResolver } from '@hookform/resolvers/zod';
import { useEffect, useRef } from 'react';
import { type DefaultValues, type FieldValues, type UseFormReturn, useForm, useWatch } from 'react-hook-form';
import type { ZodType } from 'zod';
import { type Draft, useDraft } from './draft.ts';

export interface KeptForm<In extends FieldValues, Out> extends UseFormReturn<In, undefined, Out> {
  /** What stands in the fields now. */
  readonly typed: In;
  /** For `StillHere`. */
  readonly kept: Pick<Draft<In>, 'typedAt' | 'clear'>;
  /** Sent, or begun anew. */
  readonly clear: () => void;
}

/**
 * A form: its fields by react-hook-form, what they mean by Zod when it is sent, and what is typed kept on this device until then (`useDraft`). What is typed and
 * means nothing is said at once under its field, what is missing when somebody sends it.
 *
 * Shapes  name: of the form and what it is about, as `finish/<batch>`. blank: what stands there when nobody has typed; plain data, with every field there.
 */
export function useKeptForm<In extends FieldValues, Out>(
  name: string,
  schema: ZodType<Out, In>,
  blank: In,
): KeptForm<In, Out> {
  const draft = useDraft<In>(name, blank);
  const form = useForm<In, undefined, Out>({
    resolver: zodResolver(schema),
    defaultValues: draft.value as DefaultValues<In>,
    mode: 'onChange',
  });
  const { control, reset } = form;
  const empty = useRef(blank);
  const watched = useWatch({ control });
  const { set } = draft;
  useEffect(() => set({ ...empty.current, ...(watched as Partial<In>) }), [watched, set]);
  const clear = (): void => {
    draft.clear();
    reset(empty.current);
  };
  const typed = { ...blank, ...(watched as Partial<In>) };
  return { ...form, typed, kept: { typedAt: draft.typedAt, clear }, clear };
}
