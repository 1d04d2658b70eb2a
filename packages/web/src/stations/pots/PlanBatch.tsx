import type { House, ListedRecipe } from '@zabrik/contract';
import { formatMass, refusalOf } from '@zabrik/core';
import { useNavigate } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { BatchTable } from './BatchTable.tsx';
import { FillingFigures } from './FillingFigures.tsx';
import { LotRows } from './LotRows.tsx';
import { OnlyThese } from './OnlyThese.tsx';
import { goesByItself, offerOf, type PotLot } from './offers.ts';
import { TheTin } from './TheTin.tsx';
import { MOST_LOTS, useScaling } from './useScaling.ts';
import { Questions, ToFill, Wishes } from './Wishes.tsx';

interface BatchProps {
  readonly listed: ListedRecipe;
  readonly lots: readonly PotLot[];
  /** Whether these are all there are. */
  readonly all: boolean;
  readonly house: House | undefined;
}

/** What there is for a recipe, oldest first, what is wanted, and the batch it scales to. */
export function PlanBatch({ listed, lots, all, house }: BatchProps) {
  const may = useMay('pots.plan');
  const navigate = useNavigate();
  const s = useScaling(listed, lots, house);
  const plan = useCommand(api.pots.plan, {
    spoken: () => ({ says: `A batch of ${s.recipe.title.toLowerCase()}` }),
    onDone: (batch) => void navigate(`/pots/stove/${batch.id}`),
    onKept: () => void navigate('/pots/stove'),
  });
  const refused = s.shown.filter((lot) => refusalOf(s.recipe, offerOf(lot)) !== undefined);
  const fine = s.shown.filter((lot) => !refused.includes(lot));
  const usual = fine.filter((lot) => goesByItself(s.recipe, lot));
  const besides = fine.filter((lot) => !usual.includes(lot));
  const wishUnread = s.wish.kind !== 'all' && s.want === undefined;
  return (
    <div className="grid gap-4">
      <div className="grid gap-2.5">
        <Questions listed={listed} s={s} />
        {s.asksForCure && <TheTin s={s} />}
        <Wishes recipe={s.recipe} s={s} />
        <ToFill s={s} />
      </div>
      <div className="grid gap-5 xl:grid-cols-[minmax(0,1fr)_minmax(0,1.05fr)]">
        <section aria-label={`Lots for ${s.recipe.title}`} className="min-w-0">
          <h3 className="mb-2 text-[15px] font-bold text-ink-soft">What there is, oldest first</h3>
          {usual.length === 0 && (
            <p className="mb-2 text-ink-soft">
              Nothing lies in the larder for this. Bones and trim stand here once a stage is closed.
            </p>
          )}
          {may && <OnlyThese s={s} lots={fine} />}
          <LotRows lots={usual} s={s} may={may} />
          {(!all || usual.length > MOST_LOTS) && (
            <p className="mt-2 text-[14px] text-ink-soft">
              {all ? '' : 'Only the lots with the earliest dates were looked at. '}
              {usual.length > MOST_LOTS && `A batch takes ${MOST_LOTS} lots at most, the oldest first.`}
            </p>
          )}
          {besides.length > 0 && (
            <>
              <h3 className="mt-4 mb-2 text-[15px] font-bold text-ink-soft">Could go in, if you choose it</h3>
              <LotRows lots={besides} s={s} may={may} />
            </>
          )}
          {refused.length > 0 && (
            <>
              <h3 className="mt-4 mb-2 text-[15px] font-bold text-ink-soft">Not in this</h3>
              <LotRows lots={refused} s={s} may={may} label="Refused" />
            </>
          )}
        </section>
        <section aria-label={`Batch of ${s.recipe.title}`} className="min-w-0">
          <h3 className="mb-2 text-[15px] font-bold text-ink-soft">The batch</h3>
          {s.scaled === undefined ? (
            <p className={s.wantedBaseMg === undefined ? 'text-ink-soft' : 'text-alarm'}>
              {s.wantedBaseMg !== undefined && `Short of ${formatMass(s.wantedBaseMg)} ${s.recipe.baseName}. `}Choose at
              least one lot that may go in.
            </p>
          ) : (
            <div className="rounded-plate border-[1.5px] border-ink bg-white p-4">
              <BatchTable s={s} house={house} />
              {may && (
                <Button
                  variant="strong"
                  size="bench"
                  className="mt-3 w-full"
                  disabled={plan.pending || wishUnread || (s.asksForCure && s.cure === undefined)}
                  onClick={() =>
                    plan.send({
                      body: {
                        recipeId: s.recipe.id,
                        lotIds: s.chosen.map((lot) => lot.id),
                        vesselId: s.vesselId === '' ? null : s.vesselId,
                        onHandMg: s.onHandMg,
                        ways: [...s.ways],
                        shares: s.shares,
                        want: s.want ?? null,
                        cure: s.cure ?? null,
                      },
                    })
                  }
                >
                  Plan this batch
                </Button>
              )}
              {plan.error !== null && <p className="mt-2 text-alarm">{plan.error.message}</p>}
            </div>
          )}
          {s.scaled !== undefined && s.recipe.balance !== undefined && <FillingFigures s={s} lots={lots} />}
          <ul className="mt-3 grid gap-1 text-[14px]">
            {s.recipe.cautions.map((c) => (
              <li key={c} className="border-l-4 border-alarm bg-alarm-soft px-2.5 py-1">
                {c}
              </li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}
