import { Button } from '../kit/Button.tsx';

/** The code of a house as it is read off a screen and printed: the one moment it stands anywhere. */
export const RecoveryCode = ({ house, code }: { readonly house: string; readonly code: string }) => (
  <div className="grid justify-items-start gap-3">
    <p className="text-[15px]">Recovery code of {house}</p>
    <output className="figure rounded-plate border-2 border-ink bg-white px-4 py-3 text-xl tracking-wide break-all">
      {code}
    </output>
    <p className="text-ink-soft">Write it down or print it, and put it away. It is not shown again.</p>
    <Button variant="plain" className="no-print" onClick={() => print()}>
      Print
    </Button>
  </div>
);
