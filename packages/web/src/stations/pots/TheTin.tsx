import { curingKinds, mostNitrite } from '@zabrik/core';
import { useHouse } from '../../app/queries.ts';
import { Field } from '../../kit/Field.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { cureOf, type Scaling } from './useScaling.ts';

/** Which curing salt, by its label, and how much nitrite: the kinds differ tenfold, so none is taken for granted. */
export function TheTin({ s }: { readonly s: Scaling }) {
  const { data: house } = useHouse();
  const { tin, setTin } = s;
  const kind = curingKinds.find((k) => k.id === tin.kind);
  const most = mostNitrite(house?.limits.profileId ?? '');
  const percentWrong =
    kind !== undefined && tin.percent !== '' && cureOf({ ...tin, ppm: '100' }) === undefined
      ? `This kind has ${kind.low === kind.high ? '' : `${kind.low * 100} to `}${kind.high * 100} %`
      : undefined;
  return (
    <fieldset
      aria-label="Curing salt"
      className="flex flex-wrap items-end gap-3 rounded-plate border-[1.5px] border-ink bg-white p-3"
    >
      <span className="w-full text-[15px]">
        <strong>Which curing salt is it?</strong> The kinds differ tenfold. Read the label, weigh it to 0.1 g, never
        swap them.
      </span>
      {curingKinds.map((k) => (
        <Toggle
          key={k.id}
          on={tin.kind === k.id}
          onPress={() => setTin({ ...tin, kind: k.id, percent: k.low === k.high ? String(k.low * 100) : '' })}
        >
          {k.name}
        </Toggle>
      ))}
      <Field
        label="Nitrite in it, by the label"
        unit="%"
        className="w-44"
        inputMode="decimal"
        disabled={kind === undefined}
        value={tin.percent}
        error={percentWrong}
        onChange={(event) => setTin({ ...tin, percent: event.target.value })}
      />
      <Field
        label="Nitrite aimed at, mg/kg"
        unit="ppm"
        className="w-44"
        inputMode="decimal"
        value={tin.ppm}
        error={
          s.cure !== undefined && s.cure.ppm > most
            ? `More than ${Math.floor(most)}, the most under your profile`
            : undefined
        }
        onChange={(event) => setTin({ ...tin, ppm: event.target.value })}
      />
      {s.cure === undefined && (
        <span className="pb-2 text-[15px] text-alarm">
          Say both: without them it cannot be planned, and no grams of it are worked out.
        </span>
      )}
    </fieldset>
  );
}
