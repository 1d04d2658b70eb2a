import { Dialog as Radix } from 'radix-ui';
import { type ReactNode, useRef } from 'react';
import { Button } from './Button.tsx';

interface Props {
  readonly title: string;
  readonly says?: ReactNode;
  readonly children: ReactNode;
  /** Closed by Escape or a touch beside it; without one it stands until what it asks is done. */
  readonly onClose?: (() => void) | undefined;
  /** Nothing of the page under it is seen. */
  readonly covers?: boolean;
}

const stay = (event: Event): void => event.preventDefault();

/** Something that has to be answered before anything else: the page under it stands as it was, and cannot be touched. The focus comes back to where it was. */
export const Dialog = ({ title, says, children, onClose, covers = false }: Props) => {
  const here = useRef<HTMLDivElement>(null);
  return (
    <Radix.Root open onOpenChange={() => onClose?.()}>
      <Radix.Portal>
        {!covers && <Radix.Overlay className="fixed inset-0 z-40 bg-flow/70" />}
        <Radix.Content
          ref={here}
          // what covers all hears keys by itself: Enter must not press the first button that stands in it
          onOpenAutoFocus={(event) => {
            if (!covers) return;
            event.preventDefault();
            here.current?.focus();
          }}
          {...(says === undefined ? { 'aria-describedby': undefined } : {})}
          {...(onClose === undefined ? { onEscapeKeyDown: stay, onInteractOutside: stay } : {})}
          className={`fixed z-40 overflow-y-auto outline-none ${covers ? 'inset-0 bg-ground px-4 pt-[12vh] pb-8' : 'top-1/2 left-1/2 max-h-[90vh] w-[min(560px,calc(100vw-24px))] -translate-x-1/2 -translate-y-1/2 rounded-plate border-[1.5px] border-ink bg-sheet p-5'}`}
        >
          <div className={covers ? 'mx-auto mb-6 w-[360px] max-w-full' : 'mb-4'}>
            <Radix.Title className={`leading-tight font-extrabold ${covers ? 'text-[32px]' : 'text-2xl'}`}>
              {title}
            </Radix.Title>
            {says !== undefined && <Radix.Description className="mt-1 text-ink-soft">{says}</Radix.Description>}
          </div>
          {children}
          {onClose !== undefined && (
            <Radix.Close asChild>
              <Button className="mt-5">Close</Button>
            </Radix.Close>
          )}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
};
