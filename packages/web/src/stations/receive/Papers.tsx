import type { UseFormRegister } from 'react-hook-form';
import { DateField } from '../../kit/DateField.tsx';
import { Field } from '../../kit/Field.tsx';
import { Select } from '../../kit/Select.tsx';
import type { DeliveryInput, Papers as Kind } from './deliveryForm.ts';

interface Props {
  readonly kind: Kind;
  readonly register: UseFormRegister<DeliveryInput>;
  readonly error: (name: keyof DeliveryInput) => string | undefined;
}

function Choice({
  label,
  name,
  options,
  register,
}: {
  readonly label: string;
  readonly name: 'method' | 'shotDamage';
  readonly options: readonly (readonly [value: string, text: string])[];
  readonly register: Props['register'];
}) {
  return (
    <Select
      label={label}
      {...register(name)}
      none="not said"
      options={options.map(([value, text]) => ({ value, name: text }))}
    />
  );
}

/** What the papers say: of each animal only what it has. */
export function Papers({ kind, register, error }: Props) {
  const field = (name: keyof DeliveryInput, label: string) => (
    <Field label={label} error={error(name)} {...register(name)} />
  );
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-3 md:grid-cols-4" data-testid="papers">
      {field('supplierLot', 'Supplier’s lot')}
      {kind === 'fish' && (
        <>
          {field('catchArea', 'Catch area')}
          {field('gear', 'Gear')}
          <Choice
            label="Caught or farmed"
            name="method"
            register={register}
            options={[
              ['caught', 'caught at sea'],
              ['caught-in-freshwater', 'caught in freshwater'],
              ['farmed', 'farmed'],
            ]}
          />
        </>
      )}
      {kind === 'shellfish' && (
        <>
          {field('healthMark', 'Health mark on the tag')}
          {field('catchArea', 'Harvest area')}
          {field('purified', 'Purified where, when')}
        </>
      )}
      {kind === 'game' && (
        <>
          {field('killPlace', 'Killed where')}
          <DateField label="Killed on" error={error('killedOn')} {...register('killedOn')} />
          {field('shotBy', 'Shot by')}
          {field('declaration', 'Declaration number')}
          <Choice
            label="Shot damage"
            name="shotDamage"
            register={register}
            options={[
              ['none', 'none seen'],
              ['light', 'light'],
              ['heavy', 'heavy'],
            ]}
          />
        </>
      )}
    </div>
  );
}
