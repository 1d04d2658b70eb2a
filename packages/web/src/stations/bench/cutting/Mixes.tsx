import { formatCount } from '@zabrik/core';
import { RadioGroup } from 'radix-ui';
import { moneyOf, useHouse } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Notice } from '../../../kit/Notice.tsx';
import { endWords, faultWords, mixWords, thicknessWords } from './cutWords.ts';
import type { Portions } from './usePortions.ts';

/** The ways to cut the piece side by side, and why a wish cannot be met. */
export function Mixes({ flow }: { readonly flow: Portions }) {
  const { data: house } = useHouse();
  const money = moneyOf(house);
  if (flow.finished) return null;
  return (
    <div className="grid gap-2 px-4 pb-2">
      {flow.doubted !== undefined && (
        <Notice tone="attention">
          The form {flow.template.name.toLowerCase()} does not fit: what was measured and weighed is{' '}
          {formatCount(flow.doubted.off, 1)} times as far off as such pieces are. Marks will miss.{' '}
          {flow.doubted.other === undefined ? (
            'Measure the widths and thicknesses, or choose another form.'
          ) : (
            <Button
              variant="plain"
              onClick={() => {
                const id = flow.doubted?.other?.id;
                if (id !== undefined) flow.change({ ...flow.setup, templateId: id });
              }}
            >
              Take it for {flow.doubted.other.name.toLowerCase()}
            </Button>
          )}
        </Notice>
      )}
      {flow.faults.map((f) => (
        <Notice key={`${f.code} ${'sizeId' in f ? f.sizeId : ''}`} tone="attention">
          {faultWords(f, flow.setup.sizes)}
        </Notice>
      ))}
      <RadioGroup.Root
        aria-label="Mix"
        className="grid grid-flow-col gap-2.5 max-lg:grid-flow-row"
        value={flow.option === undefined ? '' : String(flow.option)}
        onValueChange={(value) => flow.setOption(Number(value))}
        // the arrow keys choose here; elsewhere they move a mark
        onKeyDown={(event) => {
          if (event.key.startsWith('Arrow')) event.stopPropagation();
        }}
      >
        {flow.options.map((o, i) => {
          const on = flow.option === i;
          return (
            <RadioGroup.Item
              key={`${o.kind} ${mixWords(o, flow.setup.sizes)} ${o.ends.length}`}
              value={String(i)}
              className={`grid min-h-24 content-start rounded-plate border-[1.5px] bg-white px-3 py-2 text-left leading-snug ${on ? 'border-ink outline-3 -outline-offset-1 outline-ink' : 'border-line-strong hover:border-ink'}`}
            >
              <span className="flex items-baseline justify-between gap-2">
                <span className="figure text-[17px]">{mixWords(o, flow.setup.sizes)}</span>
                <span className="figure text-[17px]">{money(o.valueMinor)}</span>
              </span>
              <span className="block text-[14px] text-ink-soft">{endWords(o, flow.template.ends)}</span>
              <span className="block text-[13px] text-ink-soft">
                {thicknessWords(o, flow.template.acrossIsThickness)}
              </span>
            </RadioGroup.Item>
          );
        })}
        {flow.options.length === 0 && !flow.late && flow.faults.length === 0 && (
          <p className="py-4 text-ink-soft">No portion of these sizes is left in this piece. What is left is an end.</p>
        )}
      </RadioGroup.Root>
      {flow.options.length > 0 && (
        <p className="text-[13px] text-ink-soft">
          Cooking times go by thickness alone, a hint: the core temperature decides.
        </p>
      )}
    </div>
  );
}
