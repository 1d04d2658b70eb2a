import { formatMass } from '@zabrik/core';
import { cm, percentWords } from './cutWords.ts';
import type { AtBoard } from './useCutting.ts';
import type { Portions } from './usePortions.ts';

export type Tab = 'got' | 'sizes' | 'piece';

function Fact({
  figure,
  says,
  onClick,
}: {
  readonly figure: string;
  readonly says: string;
  readonly onClick?: () => void;
}) {
  return (
    <button
      type="button"
      className="min-h-12 rounded-md px-2 text-left leading-tight hover:bg-sheet-soft"
      onClick={onClick}
    >
      <span className="figure block text-[18px] whitespace-nowrap">{figure}</span>
      <span className="block text-[13px] whitespace-nowrap text-ink-soft underline decoration-line-strong decoration-dotted underline-offset-4">
        {says}
      </span>
    </button>
  );
}

/** What lies on the board and what is wanted of it; each figure opens where it is changed. */
export function PortionHead({
  board,
  flow,
  open,
}: {
  readonly board: AtBoard;
  readonly flow: Portions;
  readonly open: (tab: Tab) => void;
}) {
  const { cutting } = board;
  const { measures, setup, plan } = flow;
  const widths = [...(measures.widths ?? [])].sort((a, b) => a.at - b.at).map((w) => cm(w.mm));
  const [main] = setup.sizes;
  return (
    <div className="flex items-center gap-x-3 border-b border-line bg-sheet px-4 py-1.5 max-lg:flex-wrap">
      <div className="min-w-0 flex-1 max-lg:basis-full">
        <h1 className="truncate text-[22px] leading-7 font-bold">{cutting.name}</h1>
        <p className="flex items-center gap-2 text-[14px] text-ink-soft">
          {cutting.pieces > 1 ? `piece ${flow.no} of ${cutting.pieces}` : 'one piece'} ·{' '}
          {cutting.inputs.map((i) => i.code).join(', ')}
        </p>
      </div>
      <Fact
        figure={formatMass(measures.massMg)}
        says={flow.measured ? 'weighed' : 'guessed'}
        onClick={() => open('piece')}
      />
      <Fact
        figure={`${cm(measures.lengthMm)} cm`}
        says={flow.measured ? 'long' : 'long, as usual'}
        onClick={() => open('piece')}
      />
      <Fact
        figure={widths.length === 0 ? flow.template.name : `${widths.join(' / ')} cm`}
        says={widths.length === 0 ? 'form' : 'wide'}
        onClick={() => open('piece')}
      />
      <Fact
        figure={main === undefined ? 'no size' : `${formatMass(main.targetMg)} ± ${percentWords(main.toleranceShare)}`}
        says={setup.sizes.length > 1 ? `${setup.sizes.length} sizes wanted` : 'wanted'}
        onClick={() => open('sizes')}
      />
      <p className="min-w-32 text-right leading-tight">
        <span className="figure block text-[18px]">{formatMass(Math.round(plan.giveAwayMg / 1_000) * 1_000)}</span>
        <span className="block text-[13px] text-ink-soft">expected over target</span>
      </p>
    </div>
  );
}
