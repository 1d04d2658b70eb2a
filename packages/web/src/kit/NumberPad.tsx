import { Delete } from 'lucide-react';

interface Props {
  readonly label: string;
  readonly onDigit: (digit: string) => void;
  readonly onBack: () => void;
  readonly onDone: () => void;
  readonly doneLabel: string;
  readonly doneDisabled: boolean;
}

const DIGITS = ['7', '8', '9', '4', '5', '6', '1', '2', '3'];
const key =
  'h-16 rounded-plate border-[1.5px] border-line-strong bg-white font-head text-2xl font-semibold hover:bg-sheet-soft active:bg-ground';

/** Digits large enough for a wet knuckle. The keyboard works beside it. */
export function NumberPad({ label, onDigit, onBack, onDone, doneLabel, doneDisabled }: Props) {
  return (
    <fieldset className="grid grid-cols-3 gap-3 border-0 p-0">
      <legend className="sr-only">{label}</legend>
      {DIGITS.map((digit) => (
        <button key={digit} type="button" className={key} onClick={() => onDigit(digit)}>
          {digit}
        </button>
      ))}
      <button
        type="button"
        className={`${key} grid place-items-center`}
        onClick={onBack}
        aria-label="Take back the last digit"
      >
        <Delete aria-hidden="true" />
      </button>
      <button type="button" className={key} onClick={() => onDigit('0')}>
        0
      </button>
      <button
        type="button"
        className="h-16 rounded-plate bg-ink font-head text-lg font-semibold text-white disabled:bg-line-strong"
        onClick={onDone}
        disabled={doneDisabled}
      >
        {doneLabel}
      </button>
    </fieldset>
  );
}
