import type { ReactNode } from 'react';

const tones = {
  alarm: 'border-alarm bg-alarm-soft',
  attention: 'border-attention bg-[#fff7e0]',
  calm: 'border-calm bg-calm-soft',
} as const;

/** Something worth a sentence. An alarm is read out at once. */
export function Notice({ tone, children }: { readonly tone: keyof typeof tones; readonly children: ReactNode }) {
  return (
    <div
      role={tone === 'alarm' ? 'alert' : 'status'}
      className={`rounded-r-md border-l-4 px-3.5 py-2.5 text-[15px] ${tones[tone]}`}
    >
      {children}
    </div>
  );
}

/** What will stand on an empty screen, and the first step to get it there. */
export function Empty({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <div className="mx-auto max-w-md px-6 py-12 text-center">
      <div className="cloth-open mx-auto mb-5 h-10 w-56 rounded-[5px] border border-line-strong" aria-hidden="true" />
      <h2 className="mb-1 text-xl font-bold">{title}</h2>
      <div className="text-ink-soft">{children}</div>
    </div>
  );
}

/** Shown when a read failed: what happened and one thing to do. */
export function Failed({ error, again }: { readonly error: Error; readonly again: () => void }) {
  return (
    <div className="p-6">
      <Notice tone="alarm">
        {error.message}{' '}
        <button type="button" className="font-semibold underline" onClick={again}>
          Try again
        </button>
      </Notice>
    </div>
  );
}

export const Loading = () => (
  <div className="p-8 text-ink-soft" role="status">
    Reading the records…
  </div>
);
