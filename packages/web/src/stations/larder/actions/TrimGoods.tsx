import { useQuery } from '@tanstack/react-query';
import type { Ask } from '@zabrik/contract';
import { believeYield, type Destination, formatMass, formatShare, trimBalance } from '@zabrik/core';
import { z } from 'zod';
import { call } from '../../../app/api.ts';
import { useCommand } from '../../../app/command.ts';
import { api } from '../../../app/endpoints.ts';
import { useKeptForm } from '../../../app/keptForm.ts';
import type { Catalogue } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Field } from '../../../kit/Field.tsx';
import { Notice } from '../../../kit/Notice.tsx';
import { massIn } from '../../../kit/readers.ts';
import { named, Select } from '../../../kit/Select.tsx';
import { trays } from '../../../parts/destinations.ts';
import type { LotRead } from './keeping.ts';
import { PartField } from './PartField.tsx';
import { partOfLot, readPart } from './part.ts';

type Body = Ask<typeof api.larder.trim>['body'];

/** A mass as typed; nothing typed is none. */
const massOr = (text: string): number | undefined => (text.trim() === '' ? 0 : massIn(text));
const mass = (least: number, words: string) =>
  z.string().transform((text, context) => {
    const read = massOr(text);
    if (read !== undefined && read >= least) return read;
    context.addIssue({ code: 'custom', message: words });
    return z.NEVER;
  });

interface Props {
  readonly lot: LotRead;
  readonly goods: Catalogue['goods'][number];
}

/** Vegetables and herbs made ready: what is ready is weighed, what of the trim is kept, and the rest was thrown away. */
export function TrimGoods({ lot, goods }: Props) {
  const herb = goods.group === 'herb';
  const shape = z.object({
    part: partOfLot(lot),
    ready: mass(1, 'What is ready, such as 480'),
    kept: mass(0, 'A weight, such as 60'),
    keptTo: z.string(),
  });
  const form = useKeptForm(`trim/${lot.id}`, shape, {
    part: '',
    ready: '',
    kept: '',
    keptTo: goods.trim?.goesTo === 'tub' ? 'stock' : 'staff',
  });
  const trim = useCommand(api.larder.trim, {
    spoken: ({ body }) => ({ says: `${lot.name} ${lot.code}, trimmed: ${formatMass(body.readyMg)} ready` }),
    onDone: form.clear,
    onKept: form.clear,
  });
  const own = useQuery({
    queryKey: ['lots', 'goods', goods.id],
    queryFn: () => call(api.larder.goodsYields, { params: { goods: goods.id } }),
  });
  const { part, ready, kept } = form.typed;
  const read = readPart(part, lot);
  const workedMg = typeof read === 'string' ? undefined : (read.massMg ?? lot.freeMg);
  const [readyMg, keptMg] = [massOr(ready), massOr(kept)];
  const sum =
    workedMg === undefined || readyMg === undefined || readyMg === 0 || keptMg === undefined
      ? undefined
      : trimBalance({ workedMg, readyMg, keptMg });
  const usual =
    goods.trim === undefined
      ? undefined
      : believeYield(
          { low: 1 - goods.trim.high, mean: 1 - goods.trim.mean, high: 1 - goods.trim.low },
          (own.data?.yields ?? []).map((y) => y.share),
        );
  const open = trays.filter((t) => t.id !== 'waste' && (t.id !== 'stock' || goods.trim?.goesTo === 'tub'));
  const errors = form.formState.errors;
  return (
    <form
      className="mt-3 grid grid-cols-2 items-end gap-3"
      onSubmit={(event) =>
        void form.handleSubmit((said) => {
          const body: Body = {
            massMg: said.part.massMg,
            readyMg: said.ready,
            keptMg: said.kept,
            keptTo: said.kept > 0 ? (said.keptTo as Destination) : null,
            note: null,
          };
          trim.send({ params: { lotId: lot.id }, body });
        })(event)
      }
    >
      <PartField label="On the board" lot={{ ...lot, freePieces: 1 }} form={form} name="part" />
      <Field
        label={herb ? 'Leaves, ready' : 'Ready'}
        unit="g"
        inputMode="decimal"
        error={errors.ready?.message}
        {...form.register('ready')}
      />
      <Field
        label={herb ? 'Stems kept' : 'Trim kept'}
        unit="g"
        inputMode="decimal"
        placeholder="none"
        error={errors.kept?.message}
        {...form.register('kept')}
      />
      <Select label="For" options={named(open)} {...form.register('keptTo')} />
      <p className="col-span-2 text-[15px]" data-testid="trimmed">
        {sum === undefined ? (
          'The rest is peel and leaves: it is thrown away as inedible part, unweighed.'
        ) : sum.overMg > 0 ? (
          <span className="font-semibold text-alarm">
            {formatMass(sum.overMg)} more than went on the board. Washed? Spin it dry.
          </span>
        ) : (
          <>
            {formatMass(sum.wasteMg)} thrown away; <strong>{formatShare(sum.readyShare)}</strong> is ready.
            {usual !== undefined && sum.readyShare < usual.low && (
              <span className="block border-l-4 border-attention pl-2 font-semibold">
                Less than it usually is. Is all of it weighed?
              </span>
            )}
          </>
        )}
      </p>
      {usual !== undefined && (
        <p className="col-span-2 text-[14px] text-ink-soft">
          Usually {formatShare(usual.low, 0)} to {formatShare(usual.high, 0)} is ready
          {usual.batches === 0
            ? ` (${(goods.trim?.provenance ?? '').replaceAll('-', ' ')}).`
            : `, by ${usual.batches} of your own and the handbook.`}
          {goods.trim?.never !== undefined && ` ${goods.trim.never}.`}
        </p>
      )}
      <Button type="submit" variant="strong" className="col-span-2 h-12" disabled={trim.pending}>
        Trimmed
      </Button>
      {trim.error !== null && (
        <div className="col-span-2">
          <Notice tone="alarm">{trim.error.message}</Notice>
        </div>
      )}
      {trim.answer !== undefined && (
        <div className="col-span-2">
          <Notice tone="calm">
            {formatShare(trim.answer.readyShare)} ready, lot {trim.answer.code}
            {trim.answer.keptCode === null ? '' : `; kept, lot ${trim.answer.keptCode}`}. Write it on the tub.
          </Notice>
        </div>
      )}
    </form>
  );
}
