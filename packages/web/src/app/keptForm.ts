import { zodResolver } from '@hookform/resolvers/zod';
import { useCallback, useEffect, useRef } from 'react';
import { type DefaultValues, type FieldValues, type UseFormReturn, useForm, useWatch } from 'react-hook-form';
import { type ZodType, z } from 'zod';
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
  /** Fields that are never kept: they stand as they were typed, and are empty after a reload. */
  secrets: readonly (keyof In)[] = [],
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
  const kept = useRef(secrets);
  useEffect(() => {
    const typed = { ...empty.current, ...(watched as Partial<In>) };
    for (const secret of kept.current) typed[secret] = empty.current[secret];
    set(typed);
  }, [watched, set]);
  const clear = (): void => {
    draft.clear();
    reset(empty.current);
  };
  const typed = { ...blank, ...(watched as Partial<In>) };
  return { ...form, typed, kept: { typedAt: draft.typedAt, clear }, clear };
}

export interface KeptDocument<T> {
  readonly doc: T;
  readonly set: (next: T | ((before: T) => T)) => void;
  /** Some fields of it. */
  readonly put: (change: Partial<T>) => void;
  /** What is wrong with it, in words; nothing until somebody has sent it. */
  readonly wrong: readonly string[];
  /** Hands it over when nothing is wrong with it; says else what is: in `wrong`, and to `refused` where that is said elsewhere. */
  readonly send: (then: (doc: T) => void, refused?: (wrong: readonly string[]) => void) => void;
  /** For `StillHere`. */
  readonly kept: Pick<Draft<unknown>, 'typedAt' | 'clear'>;
  /** Sent, or begun anew. */
  readonly clear: () => void;
}

/**
 * A form that is one thing with many parts (a recipe, a cut plan, a plate, a count): its parts are written by fields of their own, it is judged and sent whole. Kept
 * like any other form.
 *
 * Shapes  name, blank: as for `useKeptForm`. faultsOf: what is wrong with it, in words, by what is known now.
 */
export function useKeptDocument<T extends object>(
  name: string,
  blank: T,
  faultsOf: (doc: T) => readonly string[],
): KeptDocument<T> {
  const whole = z.custom<T>().superRefine((doc, context) => {
    for (const message of faultsOf(doc)) context.addIssue({ code: 'custom', message });
  });
  const form = useKeptForm<{ doc: T }, { doc: T }>(name, z.object({ doc: whole }) as never, { doc: blank });
  const { setValue, getValues, handleSubmit, formState, typed, kept, clear } = form;
  const set = useCallback<KeptDocument<T>['set']>(
    (next) => {
      const value = typeof next === 'function' ? (next as (before: T) => T)(getValues().doc) : next;
      setValue('doc' as never, value as never);
    },
    [setValue, getValues],
  );
  const put = useCallback<KeptDocument<T>['put']>((change) => set((before) => ({ ...before, ...change })), [set]);
  const { doc } = typed;
  const { isSubmitted } = formState;
  return {
    doc,
    set,
    put,
    get wrong() {
      return isSubmitted ? faultsOf(doc) : [];
    },
    send: (then, refused) =>
      void handleSubmit(
        (read) => then(read.doc),
        () => refused?.(faultsOf(getValues().doc)),
      )(),
    kept,
    clear,
  };
}
