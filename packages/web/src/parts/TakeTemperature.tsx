import { unitName } from '@zabrik/core';
import { OneField } from '../kit/OneField.tsx';
import { temperatureIn } from '../kit/readers.ts';
import { ProbeReading } from './ProbeReading.tsx';

interface Props {
  /** Names the field for those who hear it. */
  readonly label: string;
  readonly onTake: (centiC: number, source: 'probe' | 'typed') => void;
}

/** A temperature taken from the probe, or typed from another thermometer. */
export function TakeTemperature({ label, onTake }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
      <ProbeReading onTake={(c) => onTake(c, 'probe')} />
      <OneField
        aria-label={label}
        placeholder={`typed, ${unitName('°C')}`}
        inputMode="decimal"
        className="h-14 w-28!"
        again
        read={temperatureIn}
        onSend={(centiC) => onTake(centiC, 'typed')}
        send="Write it down"
        sending={{ className: 'h-14' }}
      />
    </div>
  );
}
