import { parseTemperature } from '@zabrik/core';
import { useState } from 'react';
import { Button } from '../kit/Button.tsx';
import { Field } from '../kit/Field.tsx';
import { ProbeReading } from './ProbeReading.tsx';

interface Props {
  /** Names the field for those who hear it. */
  readonly label: string;
  readonly onTake: (centiC: number, source: 'probe' | 'typed') => void;
}

/** A temperature taken from the probe, or typed from another thermometer. */
export function TakeTemperature({ label, onTake }: Props) {
  const [typed, setTyped] = useState('');
  let centiC: number | undefined;
  try {
    centiC = typed.trim() === '' ? undefined : parseTemperature(typed);
  } catch {
    centiC = undefined;
  }
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      <ProbeReading onTake={(c) => onTake(c, 'probe')} />
      <form
        className="flex gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          if (centiC === undefined) return;
          onTake(centiC, 'typed');
          setTyped('');
        }}
      >
        <Field
          aria-label={label}
          placeholder="typed, °C"
          inputMode="decimal"
          className="h-14 w-28!"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
        />
        <Button type="submit" className="h-14" disabled={centiC === undefined}>
          Write it down
        </Button>
      </form>
    </div>
  );
}
