import type { Page } from '@playwright/test';

/**
 * Counts what a cook's hands do on the screen: touches, keys, and each field that is filled once. What loads the simulated scale is not the cook's
 * doing. Over pages and reloads, until it is asked.
 */
export async function countTouches(page: Page): Promise<() => Promise<number>> {
  const count = (): void => {
    const one = (): void =>
      sessionStorage.setItem('touches', String(Number(sessionStorage.getItem('touches') ?? 0) + 1));
    const simulated = (target: EventTarget | null): boolean =>
      target instanceof Element && target.closest('[aria-label="Simulated bench"]') !== null;
    addEventListener('pointerdown', (event) => simulated(event.target) || one(), true);
    addEventListener('keydown', (event) => event.key === 'p' || simulated(event.target) || one(), true);
    let filled: EventTarget | null = null;
    addEventListener(
      'input',
      (event) => {
        if (event.target === filled || simulated(event.target)) return;
        filled = event.target;
        one();
      },
      true,
    );
  };
  await page.addInitScript(count);
  await page.reload();
  await page.evaluate(() => sessionStorage.setItem('touches', '0'));
  return () => page.evaluate(() => Number(sessionStorage.getItem('touches')));
}
