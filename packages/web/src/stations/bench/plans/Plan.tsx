import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { PlanSheet } from '@zabrik/contract';
import { type CutPlan, formatMass, formatShare } from '@zabrik/core';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { Refused } from '../../../app/api.ts';
import { useCommand } from '../../../app/command.ts';
import { dayAndTime } from '../../../app/dates.ts';
import { api } from '../../../app/endpoints.ts';
import { useKeptDocument } from '../../../app/keptForm.ts';
import { useCatalogue, useMay } from '../../../app/queries.ts';
import { useOpen } from '../../../app/title.ts';
import { Button } from '../../../kit/Button.tsx';
import { Failed, Loading, Notice } from '../../../kit/Notice.tsx';
import { OneField, someWords } from '../../../kit/OneField.tsx';
import { BodyMap } from '../../../parts/BodyMap.tsx';
import { clothOf, trayName } from '../../../parts/destinations.ts';
import { PrintHead } from '../../../parts/PrintHead.tsx';
import { StepPhoto } from '../../../parts/StepPhoto.tsx';
import { StillHere } from '../../../parts/StillHere.tsx';
import { spreadWords } from '../../../parts/spreadWords.ts';
import { planQuery } from '../reads.ts';
import { PlanEditor } from './PlanEditor.tsx';
import { idFrom } from './planDraft.ts';

/** Saves a plan as a file, in the shape the schema publishes. */
function download(plan: CutPlan): void {
  const url = URL.createObjectURL(new Blob([`${JSON.stringify(plan, null, 1)}\n`], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = `${plan.id}.json`;
  link.click();
  URL.revokeObjectURL(url);
}

function Stage({ plan, index }: { readonly plan: CutPlan; readonly index: number }) {
  const stage = plan.stages[index];
  if (stage === undefined) return null;
  const figures = new Map(stage.pieces.map((p) => [p.id, formatShare(p.share.mean, 0)]));
  return (
    <section aria-label={stage.name} className="mb-8">
      <h2 className="mb-2 border-b-2 border-ink pb-1 text-xl font-bold">
        {index + 1}. {stage.name}
        <span className="ml-3 text-[15px] font-normal text-ink-soft">
          {stage.minutes.low} to {stage.minutes.high} min an animal
          {stage.rest !== undefined && ` · rests first: ${stage.rest.note}`}
        </span>
      </h2>
      <div className="grid gap-8 md:grid-cols-[1fr_1fr]">
        <ol className="grid content-start gap-2.5">
          {stage.steps.map((step, i) => (
            <li key={step.title} className="grid grid-cols-[28px_1fr] gap-3">
              <span className="grid size-7 place-items-center rounded-full border-[1.5px] border-ink text-[14px] font-bold">
                {i + 1}
              </span>
              <span className="leading-snug">
                <strong className="font-head">{step.title}</strong>
                {step.how !== undefined && <span className="block">{step.how}</span>}
                {step.why !== undefined && <span className="block text-[15px] text-ink-soft">{step.why}</span>}
                {step.caution !== undefined && (
                  <span className="mt-1 block border-l-4 border-alarm bg-alarm-soft px-2 py-1 text-[15px]">
                    {step.caution}
                  </span>
                )}
                {(step.minutes !== undefined || step.measure !== undefined) && (
                  <span className="figure block text-[15px] font-normal">
                    {[
                      ...(step.minutes === undefined ? [] : [spreadWords(step.minutes)]),
                      ...(step.bySize ?? []).map(
                        (row) => `up to ${formatMass(row.upToG * 1_000)} ${spreadWords(row.minutes)}`,
                      ),
                      ...(step.measure === undefined
                        ? []
                        : [
                            `${step.measure.what} ${step.measure.low === step.measure.high ? '' : `${step.measure.low} to `}${step.measure.high} ${step.measure.unit}`,
                          ]),
                    ].join('; ')}
                  </span>
                )}
                {step.photo !== undefined && <StepPhoto photo={step.photo} of={step.title} className="mt-1" />}
                {step.check !== undefined && (
                  <span className="mt-1 block border-l-4 border-calm bg-calm-soft px-2 py-1 text-[15px]">
                    Look: {step.check}
                    {step.passes !== undefined && ` ${step.passes} passes at least, counted.`}
                  </span>
                )}
                {step.guard !== undefined && (
                  <span className="mt-1 block border-l-4 border-attention bg-[#fff7e0] px-2 py-1 text-[15px]">
                    Warns: {step.guard.warn}
                  </span>
                )}
              </span>
            </li>
          ))}
        </ol>
        <div>
          <BodyMap
            body={stage.body ?? plan.body}
            lit={new Set()}
            known={new Set(stage.pieces.map((p) => p.id))}
            figures={figures}
            className="mx-auto mb-3 w-full max-w-md"
          />
          <table className="w-full text-left text-[15px]">
            <thead className="text-[13px] text-ink-soft">
              <tr className="border-b border-ink">
                <th className="py-1 font-semibold">Piece</th>
                <th className="py-1 text-right font-semibold">share</th>
                <th className="py-1 pr-3 text-right font-semibold">± sd</th>
                <th className="py-1 font-semibold">goes to</th>
              </tr>
            </thead>
            <tbody>
              {stage.pieces.map((p) => (
                <tr key={p.id} className="border-b border-line align-top">
                  <td className="py-1 leading-tight">
                    {p.name}
                    {p.count > 1 && ` × ${p.count}`}
                    <span className="block text-[13px] text-ink-soft">
                      {p.share.provenance.replaceAll('-', ' ')}
                      {p.next !== undefined &&
                        ` · goes on to ${plan.stages.find((s) => s.id === p.next)?.name ?? p.next}`}
                    </span>
                  </td>
                  <td className="figure py-1 text-right">{formatShare(p.share.mean)}</td>
                  <td className="py-1 pr-3 text-right text-ink-soft">{formatShare(p.share.sd)}</td>
                  <td className="py-1 leading-tight">
                    <span className="flex items-center gap-2">
                      <span
                        className={`size-3.5 shrink-0 rounded-[3px] ${clothOf[p.destination]}`}
                        aria-hidden="true"
                      />
                      {trayName(p.destination)}
                    </span>
                    {p.alternatives.length > 0 && (
                      <span className="block text-[13px] text-ink-soft">
                        or {p.alternatives.map((a) => trayName(a).toLowerCase()).join(', ')}
                      </span>
                    )}
                  </td>
                </tr>
              ))}
              <tr className="text-ink-soft">
                <td className="py-1">{stage.dripIs ?? 'drip and dust'}</td>
                <td className="py-1 text-right">{formatShare(stage.drip.mean)}</td>
                <td className="py-1 pr-3 text-right">{formatShare(stage.drip.sd)}</td>
                <td />
              </tr>
            </tbody>
          </table>
        </div>
      </div>
    </section>
  );
}

interface Changing {
  /** null: nobody is changing it. */
  readonly plan: CutPlan | null;
}
const unchanged: Changing = { plan: null };
const noFaults = (): readonly string[] => [];

function Sheet({ sheet }: { readonly sheet: PlanSheet }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const catalogue = useCatalogue();
  const may = useMay('bench.savePlan');
  // what is wrong with a plan the server says, by what is there
  const form = useKeptDocument<Changing>(`plan/${sheet.plan.id}/${sheet.plan.version}`, unchanged, noFaults);
  const draft = form.doc.plan ?? undefined;
  const setDraft = (next: CutPlan | undefined): void => form.set({ plan: next ?? null });
  const [copying, setCopying] = useState(false);
  const plan = sheet.plan;
  const basedOn = draft !== undefined && draft.id !== plan.id ? 0 : plan.version;
  const keep = async (saved: PlanSheet): Promise<void> => {
    client.setQueryData(['catalogue', 'plan', saved.plan.id], saved);
    await client.invalidateQueries({ queryKey: ['catalogue'] });
  };
  const save = useCommand(api.bench.savePlan, {
    onDone: async (saved) => {
      await keep(saved);
      setDraft(undefined);
      if (saved.plan.id !== plan.id) void navigate(`/bench/plans/${saved.plan.id}`);
    },
  });
  const retire = useCommand(api.bench.retirePlan, { onDone: keep });
  const faults = save.error instanceof Refused ? save.error.fields : [];
  if (draft !== undefined && catalogue.data !== undefined)
    return (
      <>
        <StillHere draft={form.kept} className="px-5 pt-3" />
        <PlanEditor
          draft={draft}
          onChange={setDraft}
          species={catalogue.data.species}
          categories={catalogue.data.categories}
          saving={save.pending}
          refusal={save.error?.message}
          faults={faults}
          onSave={() =>
            form.send(({ plan: written }) => written !== null && save.send({ body: { plan: written, basedOn } }))
          }
          onLeave={() => {
            save.reset();
            setDraft(undefined);
          }}
        />
      </>
    );
  return (
    <article className="flex-1 bg-sheet p-5">
      <PrintHead />
      <header className="mb-5 flex flex-wrap items-center gap-3">
        <div className="mr-auto">
          <h1 className="text-2xl font-bold">{plan.title}</h1>
          <p className="text-ink-soft">
            {[
              ...new Set(
                plan.starts.map((s) => catalogue.data?.species.find((x) => x.id === s.species)?.name ?? s.species),
              ),
            ].join(', ')}{' '}
            · {plan.tools.join(', ')} · {sheet.own ? `your own, version ${plan.version}` : 'handbook'}
            {sheet.retired && ' · retired'}
          </p>
        </div>
        <Button onClick={() => download(plan)}>Save as file</Button>
        <Button onClick={() => print()}>Print</Button>
        {may && (
          <>
            <Button
              disabled={retire.pending}
              onClick={() => retire.send({ params: { planId: plan.id }, body: { retired: !sheet.retired } })}
            >
              {sheet.retired ? 'Bring it back' : 'Retire it'}
            </Button>
            <Button onClick={() => setCopying(!copying)}>Copy it</Button>
            <Button variant="strong" onClick={() => setDraft(plan)}>
              Change it
            </Button>
          </>
        )}
        <Link
          to="/bench/plans"
          className="inline-flex min-h-10 items-center rounded-plate border-[1.5px] border-line-strong bg-white px-4 font-head text-[15px] font-semibold"
        >
          All plans
        </Link>
      </header>
      {copying && (
        <OneField
          formLabel="Copy the plan"
          formClass="mb-5 flex items-end gap-3"
          label="What the copy is called"
          className="w-96"
          autoFocus
          maxLength={120}
          start={`${plan.title}, ours`}
          read={someWords}
          onSend={(title) => {
            setDraft({ ...plan, id: idFrom(title), title });
            setCopying(false);
          }}
          send="Go on"
          sending={{ variant: 'strong' }}
        />
      )}
      {retire.error !== null && <Notice tone="alarm">{retire.error.message}</Notice>}
      {plan.stages.map((stage, i) => (
        <Stage key={stage.id} plan={plan} index={i} />
      ))}
      <section aria-label="Versions">
        <h2 className="mb-1 text-lg font-bold">Versions</h2>
        <ol className="text-[15px]">
          {sheet.versions.map((v) => (
            <li key={`${v.version}/${v.by ?? ''}`}>
              {v.at === null ? `${v.version}, handbook` : `${v.version}, ${v.by}, ${dayAndTime(v.at)}`}
            </li>
          ))}
        </ol>
        <p className="mt-1 text-[14px] text-ink-soft">A breakdown keeps the version it was started with.</p>
      </section>
    </article>
  );
}

export default function Plan() {
  const { planId = '' } = useParams();
  const query = useQuery(planQuery(planId));
  useOpen(query.data?.plan.title);
  if (query.isPending) return <Loading />;
  if (query.isLoadingError) return <Failed error={query.error} again={() => void query.refetch()} />;
  return <Sheet key={planId} sheet={query.data} />;
}
