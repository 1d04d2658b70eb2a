import { useLayoutEffect, useRef } from 'react';

/** Single keys for a screen: a foot pedal or a cheap number pad types them. Not while someone types in a field. */
export function useKeys(handlers: Readonly<Record<string, () => void>>): void {
  const latest = useRef(handlers);
  latest.current = handlers;
  // with the drawing, not after it: a key pressed the moment the screen stands must count
  useLayoutEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const target = event.target;
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat) return;
      if (
        target instanceof HTMLInputElement ||
        target instanceof HTMLTextAreaElement ||
        target instanceof HTMLSelectElement
      ) {
        // Enter or Escape is done with the field, so that the next key counts again
        const done = event.key === 'Enter' || event.key === 'Escape';
        if (done && !event.defaultPrevented && target instanceof HTMLInputElement && target.form === null)
          target.blur();
        return;
      }
      // Space and Enter press the button that has the focus, as everywhere
      if (
        (event.key === ' ' || event.key === 'Enter') &&
        target instanceof HTMLElement &&
        target.closest('button, a') !== null
      )
        return;
      const handler = latest.current[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (handler === undefined) return;
      event.preventDefault();
      handler();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
}
