import { type FieldPath, type FieldPathValue, type FieldValues, type UseFormReturn, useWatch } from 'react-hook-form';
import { Field } from '../../../kit/Field.tsx';
import { PieceSteps } from '../PieceSteps.tsx';
import { type Of, readPart } from './part.ts';

interface Props<In extends FieldValues, Out> {
  readonly label: string;
  readonly lot: Of;
  readonly form: UseFormReturn<In, undefined, Out>;
  readonly name: FieldPath<In>;
  readonly placeholder?: string;
}

/** How much of a lot: by weight, or by pieces where it is several. */
export function PartField<In extends FieldValues, Out>({
  label,
  lot,
  form,
  name,
  placeholder = 'all of it',
}: Props<In, Out>) {
  const { control, register, setValue, getFieldState, formState } = form;
  const part = readPart(String(useWatch({ control, name })), lot);
  const pieces = typeof part === 'string' ? null : part.pieces;
  return (
    <div>
      <Field
        label={label}
        unit={pieces === null ? 'g' : ''}
        inputMode="text"
        placeholder={placeholder}
        error={getFieldState(name, formState).error?.message}
        {...register(name)}
      />
      {lot.freePieces > 1 && (
        <div className="mt-1.5">
          <PieceSteps
            of={lot.freePieces}
            pieces={pieces ?? undefined}
            onPieces={(text) => setValue(name, text as FieldPathValue<In, typeof name>, { shouldValidate: true })}
            label={label}
          />
        </div>
      )}
    </div>
  );
}
