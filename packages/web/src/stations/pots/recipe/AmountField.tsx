import { perBaseWords, readPerBase } from '@zabrik/core';
import { useEffect, useRef, useState } from 'react';
import { Field } from '../../../kit/Field.tsx';

interface Props {
  readonly label: string;
  readonly value: number;
  readonly onValue: (perBase: number) => void;
}

/** How much goes to a kilo of the base, in whichever way it is written: 250 g, 25 %, 150 ppm, 1:4, 1/3. */
export function AmountField({ label, value, onValue }: Props) {
  const [text, setText] = useState(perBaseWords(value));
  const editing = useRef(false);
  useEffect(() => {
    if (!editing.current) setText(perBaseWords(value));
  }, [value]);
  const read = readPerBase(text);
  const fine = read !== undefined && read <= 50;
  return (
    <Field
      label={label}
      value={text}
      error={fine ? undefined : '250 g, 25 %, 150 ppm, 1:4'}
      onFocus={(event) => {
        editing.current = true;
        event.target.select();
      }}
      onBlur={() => {
        editing.current = false;
        setText(perBaseWords(value));
      }}
      onChange={(event) => {
        setText(event.target.value);
        const next = readPerBase(event.target.value);
        if (next !== undefined && next <= 50) onValue(next);
      }}
    />
  );
}
