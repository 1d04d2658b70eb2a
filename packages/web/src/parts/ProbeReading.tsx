import { formatTemperature, unitName } from '@zabrik/core';
import { Thermometer } from 'lucide-react';
import { useState } from 'react';
import { useCommand } from '../app/command.ts';
import { api } from '../app/endpoints.ts';
import { useHouse } from '../app/queries.ts';
import { Button } from '../kit/Button.tsx';
import { temperatureIn } from '../kit/readers.ts';
import { useProbe } from './useProbe.ts';

/** The probe's live figure, and a button that takes it once it is steady. In the demo, a hand that sticks it into something. */
export function ProbeReading({ onTake }: { readonly onTake: (centiC: number) => void }) {
  const probe = useProbe(true);
  const { data: house } = useHouse();
  const [typed, setTyped] = useState('');
  const simulated = useCommand(api.simulation.probe);
  const stick = (centiC: number): void => simulated.send({ body: { centiC } });
  const centiC = temperatureIn(typed);
  const shown = probe.data?.centiC;
  const steady = probe.data?.state === 'steady' && shown != null;
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Button
        variant="plain"
        className="h-14"
        disabled={!steady}
        onClick={() => {
          if (shown != null) onTake(shown);
        }}
        aria-label="Take the temperature from the probe"
      >
        <Thermometer size={20} aria-hidden="true" />
        <span className="figure w-20 text-right" aria-hidden="true">
          {shown == null ? 'no probe' : formatTemperature(shown)}
        </span>
      </Button>
      <span className="w-20 text-[13px] leading-tight text-ink-soft">
        {probe.data?.state === 'moving' ? 'still moving' : steady ? 'steady' : ''}
      </span>
      {house?.simulated === true && (
        <span className="flex items-center gap-1">
          <input
            aria-label="Stick the simulated probe into, degrees"
            className="h-11 w-20 rounded-md border border-dashed border-ink-soft bg-white px-2"
            placeholder={unitName('°C')}
            inputMode="decimal"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              event.preventDefault();
              if (centiC !== undefined) stick(centiC);
            }}
          />
          <button
            type="button"
            className="min-h-11 rounded-md border border-dashed border-ink-soft px-3 text-[14px] hover:bg-sheet disabled:opacity-50"
            disabled={centiC === undefined}
            onClick={() => centiC !== undefined && stick(centiC)}
          >
            Stick it in
          </button>
        </span>
      )}
    </div>
  );
}
