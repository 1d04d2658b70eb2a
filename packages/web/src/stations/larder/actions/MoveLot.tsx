import { formatMass } from '@zabrik/core';
import { z } from 'zod';
import { useKeptForm } from '../../../app/keptForm.ts';
import { useHouse } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Select } from '../../../kit/Select.tsx';
import { StillHere } from '../../../parts/StillHere.tsx';
import type { Keeping, LotRead } from './keeping.ts';
import { PartField } from './PartField.tsx';
import { partOfLot, readPart } from './part.ts';

type Kind = 'move' | 'freeze' | 'thaw';

const moveForm = (lot: LotRead) => z.object({ place: z.string(), part: partOfLot(lot) });

const toWhere: Readonly<Record<Kind, string>> = { move: 'To', freeze: 'Into', thaw: 'Thaw in' };

/** Puts a lot, or part of it, somewhere else: of another cold a step of its own. */
export function MoveLot({ lot, kind, name, keeping }: Keeping & { readonly kind: Kind; readonly name: string }) {
  const { data: house } = useHouse();
  const form = useKeptForm(`${kind}/${lot.id}`, moveForm(lot), { place: '', part: '' });
  const { typed, setValue, handleSubmit } = form;
  const fits =
    house?.places.filter((p) =>
      kind === 'freeze'
        ? p.kind === 'freezer'
        : kind === 'thaw'
          ? p.kind === 'fridge' || p.kind === 'cold-room'
          : p.id !== lot.placeId && (p.kind === 'freezer') === (lot.state === 'frozen'),
    ) ?? [];
  // raw is not put beside what is ready to eat by itself: someone has to choose that
  const to =
    fits.find((p) => p.id === typed.place) ??
    fits.find((p) => p.holds === (lot.ready ? 'ready' : 'raw')) ??
    fits.find((p) => p.holds === 'any');
  const part = readPart(typed.part, lot);
  return (
    <form
      className="mt-3 grid grid-cols-[1.5fr_1fr] gap-3"
      onSubmit={(event) =>
        void handleSubmit((read) => {
          if (to !== undefined) keeping.keep({ kind, placeId: to.id, massMg: read.part.massMg }, form.clear);
        })(event)
      }
    >
      <StillHere draft={form.kept} className="col-span-2" />
      <Select
        label={toWhere[kind]}
        value={to?.id ?? ''}
        onValue={(place) => setValue('place', place)}
        {...(to === undefined ? { none: 'which place' } : {})}
        options={fits.map((p) => ({
          value: p.id,
          name: `${p.name}${p.holds === 'any' ? '' : p.holds === 'ready' ? ' (ready to eat)' : ' (raw)'}`,
        }))}
      />
      <PartField label="How much" lot={lot} form={form} name="part" />
      <p className="col-span-2 text-[14px] text-ink-soft">
        {kind === 'freeze' &&
          'Its days stop counting. The frozen date is one of quality; what it has left comes back when it is thawed.'}
        {kind === 'thaw' && 'In the cold, on a tray. It gets back no more days than it had, and two at most.'}
        {kind === 'move' &&
          fits.length === 0 &&
          'There is no other place for it. To freeze or thaw it is a step of its own.'}
      </p>
      <Button type="submit" variant="strong" className="col-span-2" disabled={to === undefined || keeping.pending}>
        {name} {typeof part === 'string' || part.massMg === null ? 'all of it' : formatMass(part.massMg)}
        {to !== undefined && `, ${to.name}`}
      </Button>
    </form>
  );
}
