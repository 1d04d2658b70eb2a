import { Progress } from 'radix-ui';

/** How far something is. `done` is null while nobody can say: then it stands hatched, as all that is not known yet. */
export function ProgressBar({ label, doneRatio }: { readonly label: string; readonly doneRatio: number | null }) {
  const percent = doneRatio === null ? null : Math.floor(100 * doneRatio);
  return (
    <Progress.Root
      aria-label={label}
      value={percent}
      className={`mt-1.5 h-2.5 w-full max-w-md overflow-hidden rounded-full border border-ink-soft bg-white ${percent === null ? 'bg-[repeating-linear-gradient(135deg,transparent_0_5px,var(--color-line)_5px_10px)]' : ''}`}
    >
      <Progress.Indicator className="block h-full bg-flow" style={{ width: `${percent ?? 0}%` }} />
    </Progress.Root>
  );
}
