import { formatMass } from '@zabrik/core';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { trayName } from '../../parts/destinations.ts';
import type { BenchFlow } from './useBench.ts';

/** The one big button and what stands beside it: taking a weight, typing one, and putting one right. */
export function TakeBar({ flow, may }: { readonly flow: BenchFlow; readonly may: boolean }) {
  const { reading, right, typing, typedMg } = flow;
  const tareOff = reading.tareMg > 0 && reading.netMg <= 0;
  if (typing !== undefined)
    return (
      <form
        className="flex w-full max-w-[540px] gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          flow.takeTyped();
        }}
      >
        <Field
          aria-label={typing.for === 'split' ? 'Grams to split off' : 'Weight, typed'}
          autoFocus
          inputMode="decimal"
          placeholder={typing.for === 'split' ? 'grams to split off' : 'grams'}
          className="figure h-16 min-w-0! flex-1 text-2xl"
          value={typing.text}
          onChange={(event) => flow.setTyping({ ...typing, text: event.target.value })}
          onKeyDown={(event) => {
            if (event.key === 'Escape') flow.setTyping(undefined);
          }}
        />
        <Button size="bench" className="h-16" onClick={() => flow.setTyping(undefined)}>
          Back
        </Button>
        <Button size="bench" variant="strong" type="submit" className="h-16 px-6" disabled={typedMg === undefined}>
          {typing.for === 'split'
            ? `To ${trayName(flow.suggested).toLowerCase()}`
            : flow.asked !== undefined
              ? 'Count it all the same'
              : 'Take'}{' '}
          {typedMg === undefined ? '' : formatMass(typedMg)}
        </Button>
      </form>
    );
  const type = (
    <Button
      size="bench"
      variant="plain"
      className="h-16"
      hotkey={right === undefined ? 'm' : undefined}
      disabled={!may}
      onClick={() => flow.setTyping({ for: 'weight', text: '' })}
    >
      Type
    </Button>
  );
  const takeButton = (
    <Button
      size="bench"
      variant="strong"
      className="h-16 flex-1 text-[20px] max-md:order-first max-md:basis-full"
      hotkey="Space"
      disabled={!may}
      onClick={flow.take}
    >
      {flow.asked !== undefined ? 'Count it all the same' : right === undefined ? 'Take weight' : 'Weigh again'}
    </Button>
  );
  if (right !== undefined)
    return (
      <div className="grid w-full max-w-[560px] gap-2">
        <div className="flex gap-2">
          {takeButton}
          {type}
        </div>
        <div className="flex gap-2">
          <Button size="bench" variant="alarm" className="flex-1 px-2" onClick={() => flow.takeBack(right)}>
            Take back
          </Button>
          <Button
            size="bench"
            className="flex-1 px-2"
            onClick={() => {
              flow.setTyping({ for: 'split', text: '' });
              flow.setSays('How many grams go elsewhere, and to which tray?');
            }}
          >
            Split
          </Button>
          <Button
            size="bench"
            className="flex-1 px-2"
            disabled={flow.mergeInto === undefined}
            onClick={() => void flow.merge()}
          >
            Join
          </Button>
          <Button size="bench" className="flex-1 px-2" onClick={() => flow.correct(undefined)}>
            Leave it
          </Button>
        </div>
      </div>
    );
  return (
    <div className="flex w-full max-w-[540px] gap-3 max-md:flex-wrap">
      <Button
        size="bench"
        variant="plain"
        className="h-16"
        hotkey="t"
        disabled={!may || reading.state === 'away'}
        onClick={() => flow.tellScale(tareOff ? 'untare' : 'tare')}
      >
        {tareOff ? 'Tare off' : 'Tare'}
      </Button>
      {takeButton}
      {type}
    </div>
  );
}
