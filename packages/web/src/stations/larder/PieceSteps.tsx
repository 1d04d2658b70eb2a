import { Minus, Plus } from 'lucide-react';
import { Button } from '../../kit/Button.tsx';

interface Props {
  readonly of: number;
  /** How many of them are typed now; undefined while a weight is. */
  readonly pieces: number | undefined;
  readonly onPieces: (text: string) => void;
  readonly label: string;
}

/** So many of a lot's pieces, by touch: one fewer, one more. */
export function PieceSteps({ of, pieces, onPieces, label }: Props) {
  const set = (n: number): void => onPieces(`${Math.min(of, Math.max(1, n))} pc`);
  return (
    <div className="flex items-center gap-2 text-[15px]">
      <Button className="h-11 px-3" aria-label={`${label}: one piece fewer`} onClick={() => set((pieces ?? 2) - 1)}>
        <Minus size={18} aria-hidden="true" />
      </Button>
      <span className="figure min-w-24 text-center" data-testid="pieces">
        {pieces === undefined ? `${of} pieces` : `${pieces} of ${of}`}
      </span>
      <Button className="h-11 px-3" aria-label={`${label}: one piece more`} onClick={() => set((pieces ?? 0) + 1)}>
        <Plus size={18} aria-hidden="true" />
      </Button>
    </div>
  );
}
