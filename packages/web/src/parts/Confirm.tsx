import { Refused } from '../app/api.ts';
import { Button } from '../kit/Button.tsx';
import { Notice } from '../kit/Notice.tsx';

interface Props {
  readonly error: Error | null;
  readonly onConfirm: () => void;
  /** What the button says it does. */
  readonly words?: string;
}

/** A refusal in words; where it only asks to be read, the way to do it all the same. */
export function Confirm({ error, onConfirm, words = 'I have read it. Do it' }: Props) {
  if (error === null) return null;
  const asks = error instanceof Refused && error.code === 'needs_confirmation';
  return (
    <div className="mt-2">
      <Notice tone={asks ? 'attention' : 'alarm'}>
        {error.message}
        {asks && (
          <span className="mt-2 block">
            <Button variant="plain" onClick={onConfirm}>
              {words}
            </Button>
          </span>
        )}
      </Notice>
    </div>
  );
}
