import type { PortionSize } from '@zabrik/core';
import { Button } from '../../../kit/Button.tsx';
import type { Portions } from './usePortions.ts';

/** What can be done with a weight that was picked from the list. */
export function PutRight({ flow }: { readonly flow: Portions }) {
  const { right } = flow;
  if (right === undefined) return null;
  const others: readonly PortionSize[] = flow.setup.sizes.filter((s) => s.id !== right.line);
  return (
    <div className="flex flex-wrap items-center gap-2 border-t border-attention bg-[#fff7e0] p-2.5">
      <p className="w-full text-[14px]">Trim it and weigh it again, or:</p>
      {(['staff', 'filling', 'larder'] as const)
        .filter((t) => t !== right.destination)
        .map((t) => (
          <Button key={t} className="min-h-12" onClick={() => flow.put(right, t)}>
            {t === 'staff' ? 'To staff' : t === 'filling' ? 'To filling' : 'Keep'}
          </Button>
        ))}
      {others.map((s) => (
        <Button key={s.id} className="min-h-12" onClick={() => flow.put(right, s)}>
          As {s.name}
        </Button>
      ))}
      <Button variant="alarm" className="min-h-12" onClick={() => flow.back(right)}>
        Take it back
      </Button>
    </div>
  );
}
