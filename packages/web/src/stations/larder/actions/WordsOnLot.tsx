import { z } from 'zod';
import { useKeptForm } from '../../../app/keptForm.ts';
import { Button } from '../../../kit/Button.tsx';
import { DateField } from '../../../kit/DateField.tsx';
import { Field } from '../../../kit/Field.tsx';
import { StillHere } from '../../../parts/StillHere.tsx';
import type { Keeping, LotRead } from './keeping.ts';
import { PartField } from './PartField.tsx';
import { partOfLot } from './part.ts';

const reserveForm = (lot: LotRead) =>
  z
    .object({ part: partOfLot(lot), reservedFor: z.string().trim().max(120) })
    .refine(({ reservedFor }) => reservedFor !== '' || lot.reservedFor !== null, {
      path: ['reservedFor'],
      message: 'What it is for',
    });

/** Says which dish or pot a lot, or part of it, is for; empty, that it is for none any longer. */
export function ReserveLot({ lot, keeping }: Keeping) {
  const form = useKeptForm(`reserve/${lot.id}`, reserveForm(lot), { part: '', reservedFor: '' });
  const { register, typed, handleSubmit, formState } = form;
  const none = typed.reservedFor.trim() === '' && lot.reservedFor !== null;
  return (
    <form
      className="mt-3 grid grid-cols-2 items-start gap-3"
      onSubmit={(event) =>
        void handleSubmit(({ part, reservedFor }) =>
          keeping.keep({ kind: 'reserve', reservedFor: reservedFor === '' ? null : reservedFor, ...part }, form.clear),
        )(event)
      }
    >
      <StillHere draft={form.kept} className="col-span-2" />
      <PartField label="How much" lot={lot} form={form} name="part" />
      <Field
        label="For which dish or pot"
        placeholder={lot.reservedFor ?? 'Friday’s pie'}
        maxLength={120}
        error={formState.errors.reservedFor?.message}
        {...register('reservedFor')}
      />
      <Button type="submit" variant="strong" className="col-span-2 h-11" disabled={keeping.pending}>
        {none ? 'No longer' : 'Reserve'}
      </Button>
    </form>
  );
}

const holdForm = z.object({ reason: z.string().trim().min(1, 'Say why').max(300) });

/** Holds a lot back with why; what was made of it, and what will be, with it. */
export function HoldLot({ lot, keeping }: Keeping) {
  const { register, handleSubmit, formState, kept, clear } = useKeptForm(`hold/${lot.id}`, holdForm, { reason: '' });
  return (
    <form
      className="mt-3 grid gap-3"
      onSubmit={(event) => void handleSubmit(({ reason }) => keeping.keep({ kind: 'hold', reason }, clear))(event)}
    >
      <StillHere draft={kept} />
      <Field
        label="Why nothing may leave it"
        placeholder="recall, waiting for papers"
        maxLength={300}
        error={formState.errors.reason?.message}
        {...register('reason')}
      />
      <Button type="submit" variant="alarm" className="h-11" disabled={keeping.pending}>
        Hold it
      </Button>
      <p className="w-full text-[14px] text-ink-soft">
        What was made of it, and what will be, is held back with it. What was served is in its trace.
      </p>
    </form>
  );
}

const dateForm = z.object({
  useBy: z.iso.date('A day'),
  reason: z.string().trim().min(1, 'Say why').max(500),
});

/** Sets the date of a lot by hand, with why. */
export function DateLot({ lot, keeping }: Keeping) {
  const form = useKeptForm(`date/${lot.id}`, dateForm, { useBy: lot.useBy ?? '', reason: '' });
  const { register, handleSubmit, formState, typed, kept, clear } = form;
  const { errors } = formState;
  return (
    <form
      className="mt-3 grid grid-cols-2 items-start gap-3"
      onSubmit={(event) => void handleSubmit((read) => keeping.keep({ kind: 'date', ...read }, clear))(event)}
    >
      <StillHere draft={kept} className="col-span-2" />
      <DateField label="Use by" day={typed.useBy} error={errors.useBy?.message} {...register('useBy')} />
      <Field label="Why" maxLength={500} error={errors.reason?.message} {...register('reason')} />
      <Button type="submit" variant="strong" className="col-span-2 h-11" disabled={keeping.pending}>
        Set
      </Button>
    </form>
  );
}
