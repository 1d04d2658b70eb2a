import { useQuery } from '@tanstack/react-query';
import { type Destination, PRACTICE_SCALE } from '@zabrik/core';
import { type ReactNode, useState } from 'react';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { chooseScale, useChosenScale } from '../../app/live.ts';
import { useHouse } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { trayName, trays } from '../../parts/destinations.ts';
import { setBenchDevice, useBenchDevice } from './benchDevice.ts';
import { JoinTo } from './JoinTo.tsx';
import { NotAsPlanned } from './NotAsPlanned.tsx';
import type { BenchFlow } from './useBench.ts';
import type { BenchState } from './useBreakdown.ts';

function Switch({
  on,
  onChange,
  hotkey,
  children,
}: {
  readonly on: boolean;
  readonly onChange: (on: boolean) => void;
  readonly hotkey?: string;
  readonly children: ReactNode;
}) {
  return (
    <button
      type="button"
      role="switch"
      aria-checked={on}
      aria-keyshortcuts={hotkey}
      onClick={() => onChange(!on)}
      className="grid min-h-14 w-full grid-cols-[1fr_52px] items-center gap-3 rounded-plate border-[1.5px] border-line-strong bg-white px-3 text-left leading-tight"
    >
      <span>
        {children}
        {hotkey !== undefined && (
          <kbd className="ml-2 rounded border border-line-strong px-1 text-[12px]">{hotkey}</kbd>
        )}
      </span>
      <span className={`relative h-7 rounded-full border-2 border-ink ${on ? 'bg-portion' : 'bg-ground'}`}>
        <span
          className={`absolute top-0.5 size-5 rounded-full border-2 border-ink bg-white ${on ? 'left-[26px]' : 'left-0.5'}`}
        />
      </span>
    </button>
  );
}

const keys: readonly (readonly [key: string, does: string])[] = [
  ['Space', 'take the weight'],
  ['1 – 8', 'tray'],
  ['← →', 'piece before, piece after'],
  ['+ −', 'how many in this weight'],
  ['u', 'undo'],
  ['t  z', 'tare, zero'],
  ['m', 'type a weight'],
  ['g  k', 'done, skip'],
  ['w  o', 'weights, tools'],
  ['c', 'close the stage'],
];

/** What is not needed at every piece: hands-free taking, notes to a tray, pausing, handing over. */
export function Tools({
  flow,
  state,
  may,
  onWipe,
}: {
  readonly flow: BenchFlow;
  readonly state: BenchState;
  /** A viewer looks on: what is said of the animal is said by who works on it. */
  readonly may: boolean;
  readonly onWipe: () => void;
}) {
  const device = useBenchDevice();
  const scale = useChosenScale();
  const { data: house } = useHouse();
  const people = useQuery({
    queryKey: ['bench-people'],
    queryFn: () => call(api.bench.people, {}),
    staleTime: 600_000,
  });
  const [tray, setTray] = useState<Destination>(flow.suggested);
  const [text, setText] = useState('');
  const keepNote = (): void => {
    const said = text.trim();
    if (said === '') return;
    void state.happen({ kind: 'tray-note', destination: tray, text: said }, `note to ${trayName(tray).toLowerCase()}`);
    flow.setSays(`${trayName(tray)}: ${said}`);
    setText('');
  };
  return (
    <div className="grid gap-4 px-4 py-3">
      <section className="grid gap-2" aria-label="Hands busy">
        <Switch on={device.whenSteady} onChange={(whenSteady) => setBenchDevice({ whenSteady })} hotkey="a">
          Take by itself when steady
        </Switch>
        <Switch on={device.aloud} onChange={(aloud) => setBenchDevice({ aloud })}>
          Say piece and grams aloud
        </Switch>
        <Switch on={device.large} onChange={(large) => setBenchDevice({ large })} hotkey="b">
          Large pan, steps away
        </Switch>
        <div className="grid grid-cols-2 gap-2">
          <Button size="bench" hotkey="l" className="px-2" onClick={onWipe}>
            Wipe, 3 s
          </Button>
          <Button size="bench" hotkey="h" className="px-2" onClick={flow.steps.pauseOrGoOn}>
            {flow.steps.paused ? 'Go on' : 'Pause'}
          </Button>
        </div>
      </section>
      {(house?.practiceScale === true || (house?.scales.length ?? 0) > 1) && (
        <section aria-label="Scale to weigh on" className="grid grid-cols-2 gap-2">
          {house?.scales.map((s) => (
            <Toggle
              key={s.id}
              on={s.id === scale}
              size="bench"
              className="text-left leading-tight"
              onPress={() => chooseScale(s.id)}
            >
              <span className="block font-head font-semibold">{s.name}</span>
              <span className="block text-[13px]">
                to {s.maxMg / 1_000_000} kg, in {s.intervalMg / 1_000} g
              </span>
            </Toggle>
          ))}
          {house?.practiceScale === true && (
            <Toggle
              on={scale === PRACTICE_SCALE}
              size="bench"
              className="text-left leading-tight"
              onPress={() => chooseScale(PRACTICE_SCALE)}
            >
              <span className="block font-head font-semibold">Practice</span>
              <span className="block text-[13px]">marked, not booked</span>
            </Toggle>
          )}
        </section>
      )}
      {may && <NotAsPlanned flow={flow} state={state} />}
      {may && <JoinTo flow={flow} state={state} />}
      <section aria-label="Note to a tray" className="grid gap-2">
        <h2 className="text-[15px] font-semibold">Note to a tray</h2>
        <div className="grid grid-cols-[110px_minmax(0,1fr)] gap-2">
          <Select aria-label="Tray" className="h-12" value={tray} onValue={setTray} options={named(trays)} />
          <Field
            aria-label="Note"
            placeholder="for Wednesday’s pie"
            maxLength={120}
            className="h-12"
            value={text}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') keepNote();
            }}
          />
        </div>
        <Button disabled={text.trim() === ''} onClick={keepNote}>
          Keep the note
        </Button>
      </section>
      <section aria-label="Hand over" className="grid gap-2">
        <h2 className="text-[15px] font-semibold">In hand with {state.breakdown.holder}</h2>
        <div className="flex flex-wrap gap-2">
          {people.data?.people
            .filter((p) => p.name !== state.breakdown.holder)
            .map((p) => (
              <Button
                key={p.id}
                onClick={() => {
                  void state.happen({ kind: 'hand-over', toPersonId: p.id }, `handed over to ${p.name}`);
                  flow.setSays(`Handed over to ${p.name}.`);
                }}
              >
                To {p.name}
              </Button>
            ))}
        </div>
      </section>
      <section aria-label="Keys" className="border-t border-line pt-2">
        <h2 className="mb-1 text-[15px] font-semibold">Keys, for a pedal or a number pad</h2>
        <dl className="grid grid-cols-[64px_1fr] gap-x-3 text-[14px]">
          {keys.map(([key, does]) => (
            <div key={key} className="contents">
              <dt className="font-semibold">{key}</dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
      </section>
    </div>
  );
}
