import { adviseInspection, type InspectionAnswer, type InspectionClass } from '@zabrik/core';
import { Eye, Hand, Thermometer, Wind } from 'lucide-react';
import { Hint } from '../../kit/Popover.tsx';
import { Toggle } from '../../kit/Toggle.tsx';

const senses = { look: Eye, smell: Wind, press: Hand, measure: Thermometer } as const;
const senseNames = { look: 'look', smell: 'smell', press: 'press', measure: 'measure' } as const;
const advices = {
  accept: 'Nothing against it.',
  'look-again': 'Look again before you sign: something is not answered, or not as it should be.',
  refuse: 'One of these is enough to send it back. You decide.',
} as const;

interface Props {
  readonly inspection: InspectionClass;
  readonly answers: readonly InspectionAnswer[];
  readonly onAnswer: (answer: InspectionAnswer) => void;
  readonly tags: readonly { readonly check: string; readonly accept: string; readonly reject: string }[];
}

/** What to look at, smell and press, a large yes and no for each. The temperature is measured beside it. */
export function Inspection({ inspection, answers, onAnswer, tags }: Props) {
  const points = inspection.points.filter((p) => p.sense !== 'measure');
  const answered = points.filter((p) => answers.some((a) => a.pointId === p.id)).length;
  const advice = adviseInspection(points, answers);
  return (
    <section aria-label={`Inspection, ${inspection.name}`} className="rounded-plate border border-line bg-sheet p-3">
      <h2 className="mb-2 flex items-baseline justify-between gap-3 text-[17px] font-bold">
        {inspection.name}
        <span className="text-[14px] font-normal text-ink-soft" data-testid="answered">
          {answered} of {points.length}
        </span>
      </h2>
      <ul className="grid gap-x-6 gap-y-2 sm:grid-cols-2 lg:grid-cols-3">
        {points.map((p) => {
          const Sense = senses[p.sense];
          const answer = answers.find((a) => a.pointId === p.id)?.good;
          return (
            <li key={p.id} className="grid grid-cols-[minmax(0,1fr)_56px_56px] items-stretch gap-1.5">
              <span className="min-w-0 leading-tight">
                <span className="flex items-center gap-1.5 font-semibold">
                  <Sense size={16} aria-hidden="true" />
                  <span className="sr-only">{senseNames[p.sense]}: </span>
                  {p.ask}
                  {p.critical && (
                    <Hint label={`${p.ask}: one no is enough`} mark="!" tone="alarm">
                      One no is enough to refuse it.
                    </Hint>
                  )}
                </span>
                <span className="block text-[13px] text-ink-soft">
                  {p.sense === 'smell' && 'smell: '}
                  {answer === false ? p.bad : p.good}
                </span>
              </span>
              <Toggle
                aria-label={`${p.ask}: yes, ${p.good}`}
                on={answer === true}
                size="bench"
                tone="calm"
                onPress={() => onAnswer({ pointId: p.id, good: true })}
              >
                yes
              </Toggle>
              <Toggle
                aria-label={`${p.ask}: no, ${p.bad}`}
                on={answer === false}
                size="bench"
                tone="alarm"
                onPress={() => onAnswer({ pointId: p.id, good: false })}
              >
                no
              </Toggle>
            </li>
          );
        })}
      </ul>
      {answered > 0 && (
        <p className={`mt-2 font-semibold ${advice === 'refuse' ? 'text-alarm' : ''}`} role="status">
          {advices[advice]}
        </p>
      )}
      {tags.length > 0 && (
        <p className="mt-2 text-[13px] leading-snug text-ink-soft">
          {tags.map((t) => `${t.check}: ${t.accept}; refuse ${t.reject}`).join('. ')}.
        </p>
      )}
    </section>
  );
}
