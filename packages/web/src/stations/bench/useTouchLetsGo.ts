import { useEffect } from 'react';

/** A touched button must not keep the pedal: the next Space is for the weight (detail 0 is a key press, which keeps its focus). */
export function useTouchLetsGo(): void {
  useEffect(() => {
    const letGo = (event: MouseEvent): void => {
      if (event.detail > 0 && document.activeElement instanceof HTMLButtonElement) document.activeElement.blur();
    };
    document.addEventListener('click', letGo);
    return () => document.removeEventListener('click', letGo);
  }, []);
}
