import { Field } from '../../kit/Field.tsx';
import { Toggle } from '../../kit/Toggle.tsx';

interface Props {
  readonly usual: readonly string[];
  readonly reason: string;
  readonly onReason: (reason: string) => void;
}

/** Why something is closed although it does not add up: a usual reason in one touch, or another in words. */
export const ReasonRow = ({ usual, reason, onReason }: Props) => (
  <>
    {usual.map((r) => (
      <Toggle key={r} on={reason === r} size="bench" onPress={() => onReason(r)}>
        {r}
      </Toggle>
    ))}
    <Field
      aria-label="Another reason"
      placeholder="another reason"
      className="h-14 min-w-40! flex-1"
      maxLength={500}
      value={reason}
      onChange={(event) => onReason(event.target.value)}
    />
  </>
);
