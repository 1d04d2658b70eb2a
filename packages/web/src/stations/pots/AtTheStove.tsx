import type { WholeBatch } from '@zabrik/contract';
import { formatMass, inKilograms, stepMinutes, unitName } from '@zabrik/core';
import { Flame, Undo2 } from 'lucide-react';
import { Link, useNavigate, useParams } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { clockTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { minutesWords } from '../../app/timers.ts';
import { useOpen } from '../../app/title.ts';
import { Button } from '../../kit/Button.tsx';
import { litresIn } from '../../kit/litresIn.ts';
import { Failed, Loading } from '../../kit/Notice.tsx';
import { OneField, someWords } from '../../kit/OneField.tsx';
import { PaperLink } from '../../kit/PaperLink.tsx';
import { unitWord } from '../../parts/amountIn.ts';
import { NotForMe } from '../../parts/NotForMe.tsx';
import { RefusedHere } from '../../parts/RefusedHere.tsx';
import { useKeys } from '../../parts/useKeys.ts';
import { CoreSoFar } from './CoreSoFar.tsx';
import { FinishBatch } from './FinishBatch.tsx';
import { GoesIn } from './GoesIn.tsx';
import { NextStep } from './NextStep.tsx';
import { amountOf } from './offers.ts';
import { PotsHead } from './PotsHead.tsx';
import { ToTheMark } from './ToTheMark.tsx';
import { type AtStove, useStove } from './useStove.ts';

/** What is boiled down, or may be, when it is strained. */
const boilsDown: ReadonlySet<string> = new Set<WholeBatch['kind']>(['stock', 'pan-sauce', 'reduction', 'liquor']);

/** Every step with what became of it. */
function StepList({ stove, going }: { readonly stove: AtStove; readonly going: boolean }) {
  const { state, steps } = stove;
  const took = stepMinutes(state.standing);
  const next = going ? state.next : undefined;
  return (
    <ol className="grid gap-1" aria-label="Steps">
      {steps.map((step, i) => {
        const done = state.done.get(i);
        return (
          <li
            key={`${step.kind}${step.text}`}
            aria-current={i === next ? 'step' : undefined}
            className={`grid grid-cols-[26px_1fr_auto] gap-2 rounded-md px-2 py-1 text-[15px] leading-snug ${i === next ? 'bg-white' : ''} ${done === undefined ? '' : 'text-ink-soft'}`}
          >
            <span className="figure">{i + 1}</span>
            <span className={done?.skipped === true ? 'line-through' : ''}>{step.text}</span>
            <span className="figure text-[14px] font-normal">
              {done !== undefined
                ? `${done.skipped ? 'left out' : 'done'} ${clockTime(done.at)}${took.has(i) ? `, took ${minutesWords(took.get(i) ?? 0)}` : ''}`
                : step.minutes !== undefined
                  ? minutesWords(step.minutes.typical)
                  : ''}
            </span>
          </li>
        );
      })}
    </ol>
  );
}

/** Water that a pot may be topped up with; undefined for what is none. */
const litresOf = (text: string): number | undefined => {
  const litres = litresIn(text);
  return litres !== undefined && litres < 200 ? litres : undefined;
};

/** A note, and what went in besides: a top-up of water, an addition. */
function Notes({ stove }: { readonly stove: AtStove }) {
  const notes = stove.state.standing.filter(({ body }) => ['note', 'add', 'join'].includes(body.kind));
  return (
    <section aria-label="Notes">
      <div className="flex flex-wrap gap-2">
        {['Skimmed', 'Fat taken off', 'Turned down'].map((words) => (
          <Button key={words} className="h-11" onClick={() => stove.record({ kind: 'note', text: words }, words)}>
            {words}
          </Button>
        ))}
        <OneField
          aria-label={`Topped up with water, ${unitWord('l').toLowerCase()}`}
          placeholder={`water, ${unitName('l')}`}
          inputMode="decimal"
          className="w-24!"
          again
          read={litresOf}
          onSend={(litres, text) =>
            stove.record(
              { kind: 'add', ingredientId: 'water', name: 'water', massMg: Math.round(litres * 1e6) },
              `Topped up with ${text} ${unitWord('l').toLowerCase()}`,
            )
          }
          send="Top up"
          sending={{ className: 'h-11' }}
        />
        <OneField
          formClass="flex min-w-48 flex-1 gap-1.5"
          aria-label="Note"
          placeholder="a note"
          maxLength={500}
          again
          read={someWords}
          onSend={(text) => stove.record({ kind: 'note', text }, text)}
          send="Write"
          sending={{ className: 'h-11' }}
        />
      </div>
      {notes.length > 0 && (
        <ul className="mt-2 flex flex-wrap gap-x-4 text-[14px] text-ink-soft">
          {notes.slice(-8).map((e) => (
            <li key={e.id}>
              {clockTime(e.at)}{' '}
              {e.body.kind === 'note'
                ? e.body.text
                : e.body.kind === 'add' || e.body.kind === 'join'
                  ? `${formatMass(e.body.massMg)} ${e.body.name}${e.body.kind === 'join' ? ' joined' : ''}`
                  : ''}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** One batch at the stove: the next step large, its timer, the probe, the mark to reduce to, and what came out. */
export default function AtTheStove() {
  const { batchId = '' } = useParams();
  const { query, stove } = useStove(batchId);
  useOpen(query.data?.recipe.title);
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const navigate = useNavigate();
  const mayWork = useMay('pots.event');
  const cancel = useCommand(api.pots.cancel, { onDone: () => void navigate('/pots/stove') });
  const last = stove?.state.standing.at(-1);
  const going = stove?.batch.state === 'planned' || stove?.batch.state === 'on';
  const undo = (): void => {
    if (last !== undefined) stove?.record({ kind: 'back', eventId: last.id }, 'Taken back');
  };
  useKeys(mayWork && going && stove?.finishing === false ? { u: undo } : {});
  if (query.isPending) return <Loading />;
  if (stove === undefined)
    return <Failed error={query.error ?? new Error('This batch is not here.')} again={() => void query.refetch()} />;
  const { batch, state } = stove;
  const may = mayWork && going && !stove.finishing;
  return (
    <div className="flex flex-1 flex-col">
      <PotsHead />
      <RefusedHere refused={stove.refused.filter((w) => w.endpoint !== api.pots.finish.id)} className="" />
      <div className="grid flex-1 content-start gap-5 p-4 xl:grid-cols-[minmax(0,1fr)_400px]">
        <div className="grid min-w-0 content-start gap-4">
          {going && (
            <NotForMe
              has={[
                ...batch.recipe.allergens,
                ...batch.recipe.ingredients.flatMap((i) =>
                  batch.ingredients.some((b) => b.id === i.id) ? i.allergens : [],
                ),
                ...batch.inputs.flatMap((i) => i.allergens),
              ]}
            />
          )}
          <div className="flex flex-wrap items-baseline gap-x-4">
            <h2 className="text-2xl font-bold">{batch.title}</h2>
            <p className="text-ink-soft">
              {formatMass(batch.baseMg)} {batch.recipe.baseName}
              {batch.ingredients.map((i) => `, ${formatMass(i.massMg)} ${i.name}`).join('')}
            </p>
            {may && last !== undefined && (
              <Button className="ml-auto" hotkey="u" onClick={undo}>
                <Undo2 size={18} aria-hidden="true" />
                Undo
              </Button>
            )}
            <PaperLink to={`/paper/batches/${batch.id}/card.pdf`}>Card</PaperLink>
          </div>
          {going ? (
            <NextStep stove={stove} may={may} />
          ) : (
            <p className="rounded-plate border-[1.5px] border-line-strong bg-white p-4 text-lg">
              {batch.state === 'done' && batch.outputMg !== null
                ? `Done ${batch.doneAt === null ? '' : clockTime(batch.doneAt)}: ${amountOf(batch.recipe, batch.outputMg)} from ${formatMass(batch.baseMg)}.`
                : 'Called off.'}{' '}
              {batch.outputLot !== null && (
                <>
                  <span data-testid="cost-per">
                    {money(batch.outputLot.costMinor)},{' '}
                    {money(Math.round(batch.outputLot.costMinor / inKilograms(batch.outputMg ?? 1)))} a{' '}
                    {batch.recipe.output.measure === 'litres' ? 'litre' : 'kilo'}.
                  </span>{' '}
                  {batch.unpriced.length > 0 && (
                    <span className="font-semibold text-alarm">
                      It costs more: nobody has said what {batch.unpriced.join(', ')} cost.{' '}
                    </span>
                  )}
                  <Link className="font-semibold underline" to={`/larder/${batch.outputLot.id}`}>
                    {batch.outputLot.code} in the larder
                  </Link>{' '}
                  <Link className="font-semibold underline" to={`/pots/cooling?lot=${batch.outputLot.id}`}>
                    Log its cooling
                  </Link>
                </>
              )}
            </p>
          )}
          {may && <Notes stove={stove} />}
          <StepList stove={stove} going={going} />
          <ul className="grid gap-1 text-[15px]">
            {batch.recipe.cautions.map((c) => (
              <li key={c} className="border-l-4 border-alarm bg-alarm-soft px-2.5 py-1">
                {c}
              </li>
            ))}
          </ul>
        </div>
        <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-4">
          {may && <CoreSoFar stove={stove} />}
          {going && boilsDown.has(batch.kind) && <ToTheMark stove={stove} house={house} may={may} />}
          {mayWork && going && <FinishBatch stove={stove} house={house} />}
          <GoesIn stove={stove} may={may} />
          {may && (
            <Button
              variant="alarm"
              className="justify-self-start"
              disabled={cancel.pending}
              onClick={() => cancel.send({ params: { batchId }, body: {} })}
            >
              Call it off
            </Button>
          )}
          {cancel.error !== null && <p className="text-alarm">{cancel.error.message}</p>}
          {state.standing.length === 0 && going && (
            <p className="flex items-center gap-2 text-[14px] text-ink-soft">
              <Flame size={18} aria-hidden="true" /> It goes on with the first thing written down. Expected:{' '}
              {amountOf(batch.recipe, batch.expectedMg.low)} to {amountOf(batch.recipe, batch.expectedMg.high)}.
            </p>
          )}
        </div>
      </div>
    </div>
  );
}
