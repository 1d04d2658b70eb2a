import type { Answer, Ask } from '@zabrik/contract';
import { takeOutSinks, wasteReasons } from '@zabrik/contract/ways-out';
import { formatMass, massTyped } from '@zabrik/core';
import { z } from 'zod';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { useWaitingAbout, type Waiting } from '../../app/outbox.ts';
import { Button } from '../../kit/Button.tsx';
import { Select } from '../../kit/Select.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { PartField } from './actions/PartField.tsx';
import { readPart } from './actions/part.ts';

type LotRead = Answer<typeof api.larder.read>;
type Sink = (typeof takeOutSinks)[number];

const sinkNames: Readonly<Record<(typeof takeOutSinks)[number], string>> = {
  served: 'Served',
  staff: 'Staff ate it',
  waste: 'Threw away',
};
const sinkSays: typeof sinkNames = { served: 'served', staff: 'eaten by the staff', waste: 'thrown away' };
const reasonNames: Readonly<Record<(typeof wasteReasons)[number], string>> = {
  spoiled: 'spoiled',
  'over-trimmed': 'over-trimmed',
  dropped: 'dropped',
  'over-ordered': 'over-ordered',
  'inedible-part': 'inedible part',
  'shot-damage': 'shot damage',
  returned: 'returned',
  tasting: 'tasting',
};

/** What a command that waits takes out of its lot. */
const leaves = (w: Waiting): number =>
  w.refused === undefined && w.endpoint === api.larder.takeOut.id
    ? (w.body as Ask<typeof api.larder.takeOut>['body']).massMg
    : 0;

/** What of it goes, or why that cannot be, in words. */
function taken(text: string, lot: LotRead, leavingMg: number): { massMg: number; pieces: number | null } | string {
  const onHandMg = Math.max(0, lot.freeMg - leavingMg);
  const part = readPart(text, lot);
  if (typeof part === 'string') return part;
  if (part.massMg === null) return 'How much of it goes: a weight, such as 160 or 1.2 kg';
  if (part.massMg > onHandMg)
    return `The lot has ${formatMass(lot.freeMg)}, of which ${formatMass(leavingMg)} waits to leave it`;
  return { massMg: part.massMg, pieces: part.pieces };
}

const takeOutForm = (lot: LotRead, leavingMg: number) =>
  z.object({
    part: z.string().transform((text, context) => {
      const read = taken(text, lot, leavingMg);
      if (typeof read !== 'string') return read;
      context.addIssue({ code: 'custom', message: read });
      return z.NEVER;
    }),
    reason: z.enum(wasteReasons),
  });
type Typed = z.input<ReturnType<typeof takeOutForm>>;
type Read = z.output<ReturnType<typeof takeOutForm>>;

interface Props {
  readonly lot: LotRead;
  readonly money: (minor: number) => string;
}

/** A lot, or part of it, goes: served, eaten by the staff, or thrown away with the reason. */
export function TakeOut({ lot, money }: Props) {
  // what waits here to leave it is no longer there to be taken
  const leavingMg = useWaitingAbout(lot.id).reduce((sum, w) => sum + leaves(w), 0);
  return <Going key={`${lot.freeMg}/${leavingMg}`} lot={lot} money={money} leavingMg={leavingMg} />;
}

function Going({ lot, money, leavingMg }: Props & { readonly leavingMg: number }) {
  const form = useKeptForm<Typed, Read>(`take-out/${lot.id}/${lot.freeMg}/${leavingMg}`, takeOutForm(lot, leavingMg), {
    // all of it; once some is on its way nothing, so that a second touch takes nothing more
    part: leavingMg === 0 ? massTyped(lot.freeMg) : '',
    reason: 'spoiled',
  });
  const { typed, setValue } = form;
  const takeOut = useCommand(api.larder.takeOut, {
    spoken: ({ body }) => ({ says: `${lot.name} ${lot.code}, ${sinkSays[body.to]}` }),
    onDone: form.clear,
    onKept: form.clear,
  });
  const read = taken(typed.part, lot, leavingMg);
  const take = (to: Sink): void =>
    void form.handleSubmit(({ part, reason }) =>
      takeOut.send({
        params: { lotId: lot.id },
        body: { ...part, to, reason: to === 'waste' ? reason : null, note: null },
      }),
    )();
  return (
    <section aria-label="Take out" className="rounded-plate border border-line bg-white p-3">
      <StillHere draft={form.kept} className="mb-1" />
      <div className="grid grid-cols-2 gap-3">
        <PartField label="Take out" placeholder="" lot={lot} form={form} name="part" />
        <Select
          label="If thrown away"
          value={typed.reason}
          onValue={(reason) => setValue('reason', reason)}
          options={wasteReasons.map((r) => ({ value: r, name: reasonNames[r] }))}
        />
      </div>
      <div className="mt-3 flex gap-2">
        {takeOutSinks.map((to) => (
          <Button
            key={to}
            className="flex-1 px-2"
            variant={to === 'waste' ? 'alarm' : 'plain'}
            disabled={takeOut.pending}
            onClick={() => take(to)}
          >
            {sinkNames[to]}
          </Button>
        ))}
      </div>
      {typeof read !== 'string' && read.massMg > 0 && (
        <p className="mt-2 text-[14px] text-ink-soft">
          Worth {money(lot.massMg > 0 ? (lot.costMinor * read.massMg) / lot.massMg : 0)}: that goes with it.
        </p>
      )}
      {takeOut.error !== null && <p className="mt-2 text-alarm">{takeOut.error.message}</p>}
    </section>
  );
}
