import { useEffect, useState } from 'react';

const CARD = 85.6; // mm, the long side of an ID-1 card (ISO/IEC 7810)
const KEPT = 'zabrik-px-per-mm';

/** How many pixels of this screen are a millimetre, and whether the ruler is drawn so. Kept on the device. */
export function useTrueScale() {
  const [on, setOn] = useState(false);
  const [pxPerMm, set] = useState(() => Number(localStorage.getItem(KEPT) ?? 96 / 25.4));
  useEffect(() => localStorage.setItem(KEPT, String(pxPerMm)), [pxPerMm]);
  return { on, toggle: () => setOn((before) => !before), pxPerMm, set };
}

/** The bank card everyone has: as long as it, and the ruler is true on this screen. */
export function Calibrate({ scale }: { readonly scale: ReturnType<typeof useTrueScale> }) {
  return (
    <div className="flex items-center gap-4 border-b border-line bg-sheet-soft px-4 py-1.5">
      <span className="h-6 shrink-0 bg-ink" style={{ width: CARD * scale.pxPerMm }} aria-hidden="true" />
      <label className="flex min-w-0 flex-1 items-center gap-3 text-[14px]">
        <span>Hold the long side of a bank card (85.6 mm) against the bar and slide until they agree.</span>
        <input
          type="range"
          className="h-11 w-56 accent-ink"
          min={2}
          max={9}
          step={0.01}
          value={scale.pxPerMm}
          onChange={(event) => scale.set(Number(event.target.value))}
        />
      </label>
    </div>
  );
}
