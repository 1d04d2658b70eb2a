import { Button } from '../../kit/Button.tsx';
import { inputLook } from '../../kit/Field.tsx';

interface Props {
  readonly usual: readonly string[];
  readonly reason: string;
  readonly onReason: (reason: string) => void;
}

/** Why something is closed although it does not add up: a usual reason in one touch, or another in words. */
export const ReasonRow = ({ usual, reason, onReason }: Props) => (
  <>
    {usual.map((r) => (
      <Button
        key={r}
        size="bench"
        look={reason === r ? 'strong' : 'quiet'}
        aria-pressed={reason === r}
        onClick={() => onReason(r)}
      >
        {r}
      </Button>
    ))}
    <input
      aria-label="Another reason"
      placeholder="another reason"
      className={`${inputLook} h-14 min-w-40! flex-1`}
      maxLength={500}
      value={reason}
      onChange={(event) => onReason(event.target.value)}
    />
  </>
);
