/** What comes through the door, and what became of it, for the browser tests. */
import { expect, type Page } from '@playwright/test';
import { get, post } from './askServer.ts';

export interface Lot {
  readonly id: string;
  readonly code: string;
  readonly name: string;
  readonly category: string | null;
  readonly massMg: number;
  readonly useBy: string | null;
  readonly madeAt: string;
  readonly allergens: readonly string[];
}

/** A delivery, as Receive writes it. */
export async function comes(page: Page, what: Record<string, unknown>, g: number, animals = 1): Promise<void> {
  const { suppliers } = await get<{ suppliers: { id: string; name: string }[] }>(page, '/suppliers');
  await post(page, '/deliveries', {
    species: null,
    form: null,
    animals,
    supplierId: suppliers[0]?.id,
    origin: 'Marrow Bay',
    grossMg: g * 1_000,
    tareMg: 0,
    invoiceMg: g * 1_000,
    paidMinor: 2_400,
    temperatureCentiC: 120,
    landedOn: null,
    useBy: null,
    note: null,
    ...what,
  });
  await page.goto('/bench');
}
export const lots = async (page: Page, search: string): Promise<readonly Lot[]> =>
  (await get<{ lots: Lot[] }>(page, `/lots?limit=50&search=${encodeURIComponent(search)}`)).lots;
/** Of a run: no more touches than half as many again as there are pieces, and a dozen. */
export const most = (pieces: number): number => 1.5 * pieces + 12;

/** Closes a stage that cooks: said as cooked through, with what the probe shows. */
export async function closeCooked(page: Page): Promise<void> {
  await page.keyboard.press('c');
  const bar = page.getByRole('region', { name: 'What was cooked' });
  await bar.getByRole('button', { name: /^Cooked through/ }).click();
  await bar.getByRole('button', { name: 'Close the stage' }).click();
  const off = page.getByRole('region', { name: 'The balance does not hold' });
  await expect(off.or(page.getByTestId('time'))).toBeVisible();
  if (await off.isVisible()) {
    await off.getByRole('button', { name: 'Stood long: more drip' }).click();
    await off.getByRole('button', { name: 'Close all the same' }).click();
  }
  await expect(page).toHaveURL(/\/ledger\//);
}
