import { fromMajor, inMajor, minorDigits, signOf } from '@zabrik/core';
import { Field, type FieldProps } from './Field.tsx';
import { NumField } from './NumField.tsx';

interface Props extends Omit<FieldProps, 'unit'> {
  /** The house's, ISO 4217; none yet while it is read. */
  readonly currency: string | undefined;
}

const unitOf = (currency: string | undefined): string => (currency === undefined ? '' : signOf(currency).trim());

/** An amount as it is typed, with the mark of the house's money; what it means is read by `aPrice` of `fieldReaders.ts`. */
export const MoneyField = ({ currency, ...rest }: Props) => (
  <Field unit={unitOf(currency)} inputMode="decimal" {...rest} />
);

interface AmountProps {
  readonly label: string;
  readonly currency: string | undefined;
  /** What it is an amount for, as "a kg". */
  readonly per?: string;
  readonly minor: number;
  readonly onMinor: (minor: number) => void;
  /** In the currency's own unit. */
  readonly max: number;
}

/** An amount told on while it is typed, in whole minor units: of a yen there are none. */
export function AmountField({ label, currency, per, minor, onMinor, max }: AmountProps) {
  const of = currency ?? 'GBP';
  return (
    <NumField
      key={currency}
      label={label}
      unit={[unitOf(currency), per].filter((word) => word !== undefined).join(' ')}
      max={max}
      decimals={minorDigits(of)}
      value={inMajor(minor, of)}
      onValue={(value) => {
        if (currency !== undefined) onMinor(fromMajor(value, currency));
      }}
    />
  );
}
