import type { Ask } from '@zabrik/contract';
import { formatTemperature, type PlanStage } from '@zabrik/core';
import { useState } from 'react';
import type { api } from '../../app/endpoints.ts';
import { useHouse } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { TakeTemperature } from '../../parts/TakeTemperature.tsx';

export type Cooked = NonNullable<Ask<typeof api.bench.close>['body']['cooked']>;

interface Props {
  readonly stage: PlanStage;
  readonly pending: boolean;
  readonly onClose: (cooked: Cooked, thenCool: boolean) => void;
  readonly onBack: () => void;
}

/** Asked at the end of a stage that cooks: is it cooked through, what was its core, what went in with it, where does it stand. */
export function CookedBar({ stage, pending, onClose, onBack }: Props) {
  const { cooks } = stage;
  const { data: house } = useHouse();
  const [through, setThrough] = useState<boolean>();
  const [coreCentiC, setCore] = useState<number | null>(null);
  const [added, setAdded] = useState<readonly string[]>([]);
  const [placeId, setPlaceId] = useState('');
  if (cooks === undefined) return null;
  const close = (thenCool: boolean): void => {
    if (through !== undefined)
      onClose({ through, coreCentiC, added: [...added], placeId: placeId === '' ? null : placeId }, thenCool);
  };
  return (
    <section aria-label="What was cooked" className="grid gap-3 border-t-4 border-attention bg-[#fff7e0] px-4 py-3">
      <div className="flex flex-wrap items-center gap-3">
        <strong className="font-head text-[19px]">It was {cooks.word}. Is it cooked through?</strong>
        <Toggle on={through === true} size="bench" onPress={() => setThrough(true)}>
          Cooked through{cooks.through ? ', as usual' : ''}
        </Toggle>
        <Toggle on={through === false} size="bench" onPress={() => setThrough(false)}>
          Still raw inside{cooks.through ? '' : ', as usual'}
        </Toggle>
      </div>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <TakeTemperature label="Core as read" onTake={setCore} />
        <span className="figure text-xl" data-testid="core-read">
          {coreCentiC === null ? 'core not read' : formatTemperature(coreCentiC)}
        </span>
        <Select
          label="It stands in"
          beside
          big
          fit
          value={placeId}
          onValue={setPlaceId}
          none="the usual place"
          options={named(house?.places)}
        />
      </div>
      {cooks.adds !== undefined && (
        <div className="flex flex-wrap items-center gap-2">
          <span className="font-semibold">Went in with it:</span>
          {cooks.adds.map((a) => (
            <Toggle
              key={a.id}
              on={added.includes(a.id)}
              onPress={() => setAdded(added.includes(a.id) ? added.filter((x) => x !== a.id) : [...added, a.id])}
            >
              {a.name}
            </Toggle>
          ))}
        </div>
      )}
      <div className="flex flex-wrap gap-3">
        <Button size="bench" onClick={onBack}>
          Weigh on
        </Button>
        <Button size="bench" variant="plain" disabled={through === undefined || pending} onClick={() => close(false)}>
          Close the stage
        </Button>
        <Button size="bench" variant="strong" disabled={through === undefined || pending} onClick={() => close(true)}>
          Close it and log its cooling
        </Button>
      </div>
    </section>
  );
}
