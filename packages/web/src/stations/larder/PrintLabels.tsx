import type { Ask, Progress } from '@zabrik/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Notice } from '../../kit/Notice.tsx';
import { ProgressBar } from '../../kit/ProgressBar.tsx';
import { named, Select } from '../../kit/Select.tsx';

type Size = Ask<typeof api.larder.printLabels>['body']['size'];
const sizes: readonly { readonly id: Size; readonly name: string }[] = [
  { id: '57x32', name: 'roll, 57 × 32 mm' },
  { id: '62x40', name: 'roll, 62 × 40 mm' },
  { id: '100x50', name: 'roll, 100 × 50 mm' },
  { id: 'a4-24', name: 'A4 sheet of 24' },
  { id: 'a4-65', name: 'A4 sheet of 65' },
];
const labelsForm = z.object({
  copies: z
    .string()
    .regex(/^[1-9]\d?$/, '1 to 99')
    .transform(Number),
});
const KEPT = 'zabrik-label-size';
const kept = (): Size => {
  try {
    return sizes.find((s) => s.id === localStorage.getItem(KEPT))?.id ?? '62x40';
  } catch {
    return '62x40';
  }
};

/** What the printing of labels is at: they are drawn one by one, then the printer takes them. */
export function howFar(progress: Progress | undefined): string {
  if (progress === undefined) return 'Asking for the labels.';
  const { done, of } = progress;
  if (done < of) return `${done} of ${of} labels drawn. You can go on working meanwhile.`;
  return of === 1 ? 'Drawn. The printer has it.' : `All ${of} drawn. The printer has them.`;
}

/** Prints labels of lots on the label printer, or opens them as a PDF for sheets. */
export function PrintLabels({ lots }: { readonly lots: readonly { readonly id: string; readonly labels: number }[] }) {
  const [size, setSize] = useState<Size>(kept);
  const form = useKeptForm(`labels/${lots.map((l) => l.id).join(',')}`.slice(0, 400), labelsForm, { copies: '1' });
  const print = useCommand(api.larder.printLabels, { onDone: form.clear });
  const wrong = form.formState.errors.copies?.message;
  const before = lots.filter((l) => l.labels > 0).length;
  return (
    <div className="mt-3">
      <form
        className="flex flex-wrap items-center gap-2"
        onSubmit={(event) =>
          void form.handleSubmit(({ copies }) =>
            print.send({ body: { size, lots: lots.map((l) => ({ lotId: l.id, copies })) } }),
          )(event)
        }
      >
        <Select
          aria-label="Label size"
          fit
          value={size}
          onValue={(next) => {
            setSize(next);
            try {
              localStorage.setItem(KEPT, next);
            } catch {
              // a browser that keeps nothing asks again next time
            }
          }}
          options={named(sizes)}
        />
        <label htmlFor="of-each">of each</label>
        <Field
          id="of-each"
          className="w-16!"
          inputMode="numeric"
          aria-invalid={wrong !== undefined}
          {...form.register('copies')}
        />
        {wrong !== undefined && <span className="text-[14px] text-alarm">{wrong}</span>}
        <Button type="submit" variant="strong" disabled={print.pending}>
          {print.pending ? 'Printing…' : 'Print'}
        </Button>
        <a
          className="flex min-h-11 items-center px-2 underline"
          href={`/api/v1/labels.pdf?lots=${lots.map((l) => l.id).join(',')}&size=${size}`}
          target="_blank"
          rel="noreferrer"
        >
          Look at them as PDF
        </a>
      </form>
      {print.pending && (
        <div className="mt-2 max-w-md">
          <p className="text-[15px]">{howFar(print.progress)}</p>
          <ProgressBar
            label="How far the labels are"
            doneRatio={print.progress === undefined ? null : print.progress.done / print.progress.of}
          />
        </div>
      )}
      {before > 0 && print.answer === undefined && !print.pending && (
        <p className="mt-1 text-[14px] text-ink-soft">
          {before === 1 ? 'One of them has' : `${before} of them have`} a label already: the new one says it is a
          reprint.
        </p>
      )}
      {print.answer !== undefined && (
        <div className="mt-2">
          <Notice tone="calm">
            {print.answer.labels} {print.answer.labels === 1 ? 'label' : 'labels'} printed
            {print.answer.reprints > 0 && `, ${print.answer.reprints} marked as reprint`}.{' '}
            <Link className="underline" to="/larder/labels">
              What came out
            </Link>
          </Notice>
        </div>
      )}
      {print.error !== null && (
        <div className="mt-2">
          <Notice tone="alarm">{print.error.message}</Notice>
        </div>
      )}
    </div>
  );
}
