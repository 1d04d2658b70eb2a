import type { ComponentProps } from 'react';

/** A button on the dark bar over every screen. */
export const BarButton = (props: ComponentProps<'button'>) => (
  <button
    type="button"
    className="min-h-11 self-center rounded-md border border-white/40 px-3 whitespace-nowrap text-[14px] hover:bg-white/10"
    {...props}
  />
);
