import { media } from '@zabrik/catalogue/heat';
import type { Ask, Cooling } from '@zabrik/contract';
import {
  type Between,
  type CoolingSteps,
  coolingCurve,
  coolingProgress,
  fitCooling,
  formatCount,
  formatDegrees,
  formatLitres,
  formatTemperature,
  freezingProgress,
  judgeLog,
  type Limit,
  LONGEST_UNREAD_HOURS,
  logOf,
} from '@zabrik/core';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import { useCommand } from '../../app/command.ts';
import { clockTime, dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useEventLog } from '../../app/eventLog.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { keep, type Waiting } from '../../app/outbox.ts';
import { useMay } from '../../app/queries.ts';
import { useNow } from '../../app/useNow.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { RefusedHere } from '../../parts/RefusedHere.tsx';
import { TakeTemperature } from '../../parts/TakeTemperature.tsx';
import { verdictTone, verdictWords } from '../../parts/verdictWords.ts';
import { CoolingChart } from './CoolingChart.tsx';
import { longWords } from './coolingMethods.ts';

/** What the limit says of the log so far, by the worst that the readings allow. */
function Judged({
  log,
  cooling,
  nowMinute,
}: {
  readonly log: readonly { minute: number; C: number }[];
  readonly cooling: Cooling;
  readonly nowMinute: number;
}) {
  const limit = cooling.limit as Limit | null;
  const at = (minute: number): string =>
    clockTime(new Date(Date.parse(cooling.readings[0]?.at ?? cooling.startedAt) + minute * 60_000).toISOString());
  const between = (b: Between): string =>
    b.from === b.to ? `at ${at(b.to)}` : `between ${at(b.from)} and ${at(b.to)}`;
  if (limit === null) return <p className="text-ink-soft">No limit was selected: a log only.</p>;
  const document = `${limit.citation.document} ${limit.citation.section}`;
  if (limit.kind === 'freeze_treatment') {
    const progress = freezingProgress(limit, log);
    return (
      <ul className="text-[15px]">
        {progress.options.map((o) => (
          <li key={`${o.holdC}${o.holdHours}`}>
            {formatDegrees(o.holdC)} or colder: <strong className="figure">{formatCount(o.heldHours, 1)} h</strong>{' '}
            shown of {o.holdHours} h
          </li>
        ))}
        {progress.verdict === 'not-shown' && (
          <li className="text-alarm">
            {progress.unreadHours > 0
              ? `Not shown: nobody read it for ${formatCount(progress.unreadHours)} h. Read it at least every ${LONGEST_UNREAD_HOURS} h.`
              : 'Not shown: the limit is for pieces no thicker than its table, and nobody said how thick these are.'}
          </li>
        )}
        <li className="text-ink-soft">
          {document}. The core counts, not the freezer’s air. Your authority decides which fish is exempt.
        </li>
      </ul>
    );
  }
  if (limit.kind !== 'cooling') return null;
  const progress = coolingProgress(limit, log, nowMinute);
  return (
    <ul className="grid gap-1 text-[15px]">
      {progress.start === undefined && (
        <li>The clock starts when it comes down to {formatDegrees(limit.value.start_C ?? 0)}.</li>
      )}
      {progress.startUnknown && (
        <li className="text-alarm">
          The first reading was colder than {formatDegrees(limit.value.start_C ?? 0)} already: when it passed there is
          not known, so nothing can be shown.
        </li>
      )}
      {progress.start !== undefined && progress.start.to > progress.start.from && (
        <li className="text-ink-soft">
          It passed {formatDegrees(limit.value.start_C ?? 0)} {between(progress.start)}: the clock is taken from{' '}
          {at(progress.start.from)}.
        </li>
      )}
      {progress.steps.map((s) => (
        <li key={s.toC} className={verdictTone(s.verdict)}>
          <strong className="figure">{formatDegrees(s.toC)}</strong>{' '}
          {s.met === undefined
            ? s.verdict === 'outside'
              ? `was due by ${at(s.dueMinute)} and is not reached: outside.`
              : s.verdict === 'not-shown'
                ? `was due by ${at(s.dueMinute)} and nobody has read it there: not shown.`
                : `due by ${at(s.dueMinute)}.`
            : `${between(s.met)}, due by ${at(s.dueMinute)}: ${s.verdict === 'outside' ? 'late, outside' : s.verdict === 'within' ? 'within' : 'not shown'}.`}
          {s.warmedAgain && ' It was warmer again in between.'}
        </li>
      ))}
      {progress.verdict === 'not-shown' && progress.gapMinutes > 0 && (
        <li>
          The widest gap between readings that decide is{' '}
          <strong className="figure">{longWords(progress.gapMinutes)}</strong>. Judged by the worst they allow.
        </li>
      )}
      <li className="text-ink-soft">
        {document}. {limit.caution}
      </li>
    </ul>
  );
}

const closeForm = z.object({
  outcome: z
    .string()
    .max(500, 'Five hundred letters at most')
    .transform((text) => (text.trim() === '' ? null : text.trim())),
});

const reading = (w: Waiting, by: string): Cooling['readings'] => [
  { ...(w.body as Ask<typeof api.pots.readCooling>['body']), id: w.key, by },
];

/** One log of cooling or freezing: the curve that was expected, what the probe read, what is foretold, and how it ends. */
export function CoolingLog({ cooling }: { readonly cooling: Cooling }) {
  const may = useMay('pots.readCooling') && cooling.state === 'open';
  const now = useNow(20_000);
  const closing = useKeptForm(`close-log/${cooling.id}`, closeForm, { outcome: '' });
  const said = useEventLog(cooling.id, api.pots.readCooling.id, cooling.readings, reading);
  const readings = useMemo(() => [...said.entries].sort((x, y) => x.at.localeCompare(y.at)), [said]);
  const log = useMemo(() => logOf(readings.map((r) => ({ at: r.at, C: r.centiC / 100 }))), [readings]);
  const verdict =
    cooling.state === 'open'
      ? judgeLog(
          cooling.limit as Limit | null,
          readings.map((r) => ({ at: r.at, C: r.centiC / 100 })),
          now.toISOString(),
        )
      : cooling.verdict;
  const nowMinute =
    (Date.parse(cooling.closedAt ?? now.toISOString()) - Date.parse(readings[0]?.at ?? cooling.startedAt)) / 60_000;
  const limit = cooling.limit?.kind === 'cooling' ? (cooling.limit as CoolingSteps) : undefined;
  const medium = useMemo(() => {
    const found = media.find((m) => m.id === cooling.setup.mediumId);
    const { airC } = cooling.setup;
    return found === undefined || airC === null ? found : { ...found, airC };
  }, [cooling.setup]);
  const curves = useMemo(() => {
    if (medium === undefined || cooling.kind === 'freezing') return undefined;
    const { setsAtC, vessel, litres } = cooling.setup;
    const batch = { vessel, litres, fromC: log[0]?.C ?? 90, ...(setsAtC === null ? {} : { setsAtC }) };
    const fit = fitCooling(batch, medium, log);
    const draw = (scale: number) => coolingCurve(batch, medium, { minutes: 900, scale }).C;
    return {
      fit,
      expected: draw(1),
      foretold: draw(fit.scale),
      slow: draw(fit.scale * Math.exp(-1.2816 * fit.logSd)),
      fast: draw(fit.scale * Math.exp(1.2816 * fit.logSd)),
    };
  }, [log, medium, cooling.setup, cooling.kind]);
  const clockFrom = limit === undefined ? undefined : coolingProgress(limit, log, nowMinute).start?.to;
  const foretoldStart =
    limit === undefined || curves === undefined
      ? undefined
      : coolingProgress(
          limit,
          curves.foretold.map((C, minute) => ({ minute, C })),
          curves.foretold.length - 1,
        );
  const late = foretoldStart?.steps.find((s) => s.verdict === 'outside');
  const close = useCommand(api.pots.closeCooling, {
    spoken: () => ({ says: `The log of ${cooling.name} closed` }),
    onDone: closing.clear,
    onKept: closing.clear,
  });
  const record = (centiC: number, source: 'probe' | 'typed'): void =>
    void keep(
      api.pots.readCooling,
      { params: { coolingId: cooling.id }, body: { at: new Date().toISOString(), centiC, source } },
      { says: `${cooling.name} ${formatTemperature(centiC)}` },
    );
  const tone =
    verdict === 'outside' || verdict === 'not-shown'
      ? 'border-alarm'
      : verdict === 'within'
        ? 'border-calm'
        : 'border-line-strong';
  return (
    <article className={`rounded-plate border-2 bg-white p-4 ${tone}`} aria-label={`Log of ${cooling.name}`}>
      <RefusedHere refused={said.refused} className="mb-2" />
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h3 className="text-xl font-bold">{cooling.name}</h3>
        <p className="text-ink-soft">
          {cooling.setup.count > 1 ? `${cooling.setup.count} × ` : ''}
          {formatLitres(cooling.setup.litres)} in {cooling.setup.vesselName.toLowerCase()}, {medium?.name.toLowerCase()}
          {cooling.lot !== null && (
            <>
              {' · '}
              <Link className="underline" to={`/larder/${cooling.lot.id}`}>
                {cooling.lot.code}
              </Link>
            </>
          )}
        </p>
        <strong className={`ml-auto font-head text-lg ${verdictTone(verdict)}`} data-testid="verdict">
          {verdictWords[verdict]}
        </strong>
      </div>
      <div className="grid gap-4 lg:grid-cols-[1fr_300px]">
        {curves === undefined ? (
          <ul className="self-start text-[15px]" aria-label="Readings">
            {readings.map((r) => (
              <li key={r.id}>
                {dayAndTime(r.at)}: <span className="figure">{formatTemperature(r.centiC)}</span>
              </li>
            ))}
          </ul>
        ) : (
          <CoolingChart
            curves={[
              { name: 'foretold', C: curves.foretold },
              { name: 'expected before', C: curves.expected, dashed: true },
            ]}
            band={[curves.fast, curves.slow]}
            readings={log}
            limit={limit}
            clockFrom={clockFrom ?? foretoldStart?.start?.to}
            label={`${cooling.name}: ${readings.length} readings, last ${formatTemperature(readings.at(-1)?.centiC ?? 0)}; ${verdictWords[verdict].toLowerCase()}`}
            height={240}
          />
        )}
        <div className="grid content-start gap-2">
          <Judged log={log} cooling={cooling} nowMinute={nowMinute} />
          {cooling.state === 'open' && verdict === 'open' && late !== undefined && (
            <p className="border-l-4 border-attention bg-[#fff7e0] px-2.5 py-1.5" role="status">
              At this rate {formatDegrees(late.toC)} comes too late. Divide it over shallow trays, stir it in ice, or
              take the chiller now.
            </p>
          )}
          {curves !== undefined && curves.fit.readings > 0 && (
            <p className="text-[14px] text-ink-soft">
              It cools{' '}
              {curves.fit.scale >= 1
                ? `${formatCount(curves.fit.scale, 1)} times as fast`
                : `${formatCount(1 / curves.fit.scale, 1)} times as slowly`}{' '}
              as the handbook’s figure, by {curves.fit.readings} {curves.fit.readings === 1 ? 'reading' : 'readings'}.
            </p>
          )}
        </div>
      </div>
      {may && (
        <div className="mt-3 grid gap-3 border-t border-line pt-3">
          <TakeTemperature label={`Temperature of ${cooling.name} as read`} onTake={record} />
          <form
            className="flex flex-wrap items-center gap-2"
            onSubmit={(event) =>
              void closing.handleSubmit((body) => close.send({ params: { coolingId: cooling.id }, body }))(event)
            }
          >
            {verdict !== 'within' && (
              <Field
                aria-label="What was done about it"
                placeholder="what was done: reheated at once, thrown away, ..."
                className="min-w-56 flex-1"
                error={closing.formState.errors.outcome?.message}
                {...closing.register('outcome')}
              />
            )}
            <Button
              type="submit"
              variant={verdict === 'within' ? 'strong' : 'quiet'}
              className="h-11"
              disabled={close.pending || said.unsent.length > 0}
            >
              Close the log
            </Button>
          </form>
          {close.error !== null && (
            <p className="text-alarm" role="alert">
              {close.error.message}
            </p>
          )}
        </div>
      )}
      {cooling.outcome !== null && <p className="mt-2">Done about it: {cooling.outcome}</p>}
    </article>
  );
}
