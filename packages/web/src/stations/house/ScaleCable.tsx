/** A scale that hangs on this very tablet: its line is picked in the browser, and read as a bridge reads one. */
import type { House } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { useState } from 'react';
import { useReadingOf } from '../../app/live.ts';
import { letGo, readOver, useCable } from '../../app/readCable.ts';
import { Button } from '../../kit/Button.tsx';
import { Select } from '../../kit/Select.tsx';

/** How fast lines of scales talk, and what most are set to. */
const SPEEDS = ['1200', '2400', '4800', '9600', '19200', '38400', '57600', '115200'] as const;
type Speed = (typeof SPEEDS)[number];
const USUAL: Speed = '9600';

const words = {
  none: '',
  reading: '',
  silent: 'The line is open, and says nothing that is a weight. Is its speed right, and does the scale send by itself?',
  lost: 'The line cannot be opened. Is it plugged in, and read in no other tab? It is tried again by itself.',
} as const;

export function ScaleCable({ scaleId, scales }: { readonly scaleId: string; readonly scales: House['scales'] }) {
  const { cable, is } = useCable();
  const reading = useReadingOf(scaleId);
  const [speed, setSpeed] = useState<Speed>(USUAL);
  if (cable?.scaleId === scaleId)
    return (
      <div className="flex w-full flex-wrap items-center gap-3" data-testid="cable">
        <p className="flex-1">
          This tablet reads it over its own cable
          {is === 'reading' && reading !== undefined && (
            <>
              : <output className="figure text-xl">{formatMass(reading.netMg)}</output> {reading.state}
            </>
          )}
          . {words[is] !== '' && <span className="border-l-4 border-attention pl-2 font-semibold">{words[is]}</span>}
        </p>
        <Button className="h-11" onClick={() => void letGo()}>
          Read it here no more
        </Button>
      </div>
    );
  return (
    <div className="flex w-full flex-wrap items-end gap-3">
      <Select
        label="Speed of its line"
        dense
        value={speed}
        onValue={setSpeed}
        options={SPEEDS.map((value) => ({ value, name: value }))}
      />
      <Button className="h-11" onClick={() => void readOver({ scaleId, baudRate: Number(speed) }, scales)}>
        Read it over this tablet’s cable
      </Button>
    </div>
  );
}
