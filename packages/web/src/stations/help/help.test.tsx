/** Help: figures worked by hand from their own words; the change log as it is read; the first day until its person has had enough. */

import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import { roles } from '@zabrik/contract/roles';
import { MemoryRouter } from 'react-router';
import { afterEach, describe, expect, it } from 'vitest';
import { me } from '../../testing/kitchen.ts';
import { screens } from '../screens.ts';
import { changesOf } from './changesOf.ts';
import FirstDay from './FirstDay.tsx';
import { figures } from './figures.ts';
import { firstSteps } from './firstSteps.ts';

afterEach(cleanup);

describe('how figures are made', () => {
  const said = (id: string): string => figures.find((f) => f.id === id)?.example?.('GBP') ?? '';

  it('each with its sum and where it comes from, under an address of its own', () => {
    expect(new Set(figures.map((f) => f.id)).size).toBe(figures.length);
    expect(figures.filter((f) => f.sum === '' || f.source === '')).toEqual([]);
  });

  it('every link from a figure leads to one of them', () => {
    const stations = join(import.meta.dirname, '..');
    const links = readdirSync(stations, { recursive: true, encoding: 'utf8' })
      .filter((path) => path.endsWith('.tsx') && !path.includes('.test.'))
      .flatMap((path) => [...readFileSync(join(stations, path), 'utf8').matchAll(/<HowLink\s+to="([^"]+)"/g)])
      .map(([, to]) => to);
    expect(links.length).toBeGreaterThan(4);
    expect(links.filter((to) => !figures.some((f) => f.id === to))).toEqual([]);
  });

  it('worked through they come out as by hand', () => {
    // 1,430 / 2,860 = 0.5; 0.5 of which 0.52
    expect(said('yield')).toContain('is 50 %');
    expect(said('yield')).toContain('26 %');
    // 2,810 of 2,860 leaves 50; drip 28.6, twice 14.3; four weighings of a class III scale of 2 g: 4 g over 1,000 g, else 2 g
    expect(said('balance')).toContain('2,810 g weighed: 50 g unaccounted for');
    // errors 4, 4, 2, 2: root of 40 is 6.3; 28.6 + 28.6 + 6.3 = 63.5
    expect(said('balance')).toMatch(/6[34](\.\d)? g may be: it holds/);
    // OIML R 76: up to 500 e half a step, up to 2,000 e one; in service twice
    expect(said('scale-error')).toContain('2 g at 800 g, 4 g at 1,400 g');
    // root of 4 x 4 and 4 x 4 is 5.7
    expect(said('scale-error')).toContain('together 6 g');
    // 500 g at 0.60 a kilo are 0.30; 91.20 - 0.30; by weight 91.20 x 1,776 / 2,276
    expect(said('cost')).toContain('take £0.30, the fillets £90.90; by weight the fillets £71.16');
    expect(said('factor')).toContain('1.32 times');
    // 7.80 x 40 / 1,000
    expect(said('claim')).toContain('40 g short, £0.31');
    // 16.40 x 23 / 60
    expect(said('labour')).toContain('£6.29');
    // 5 x 0.1 / 0.9
    expect(said('brine')).toContain('556 g of salt, not 500 g');
    // 2 x 10^(7/7.5)
    expect(said('heat')).toContain('17.2 minutes');
    // 340 g at 2.50
    expect(said('pantry')).toContain('£0.85');
  });
});

describe('what changed', () => {
  it('is the change log, an item a line', () => {
    expect(changesOf('# Top\n\nwords\n\n## 0.2, soon\n\n- one\n  goes on\n- two\n\n## 0.1\n- three\n')).toEqual([
      { title: '0.2, soon', items: ['one goes on', 'two'] },
      { title: '0.1', items: ['three'] },
    ]);
    const ours = changesOf(readFileSync(join(import.meta.dirname, '../../../../../CHANGELOG.md'), 'utf8'));
    expect(ours[0]?.items.length).toBeGreaterThan(2);
  });
});

describe('the first day', () => {
  const shown = () =>
    render(
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>
          <FirstDay me={{ ...me, firstDay: true }} />
        </MemoryRouter>
      </QueryClientProvider>,
    );

  it('leads each role to screens there are', () => {
    const known = new Set(screens.map((s) => s.path));
    expect(roles.flatMap((r) => firstSteps[r]).filter((s) => !known.has(s.to))).toEqual([]);
    for (const role of roles) expect(firstSteps[role].length).toBeGreaterThan(2);
  });

  it('says how much there is to touch, opens, and goes for now', async () => {
    shown();
    const title = screen.getByRole('button', { name: /Your first day: 5 things to touch/ });
    expect(screen.queryByRole('link')).toBeNull();
    title.click();
    expect(await screen.findAllByRole('link')).toHaveLength(5);
    screen.getByRole('button', { name: 'Not now' }).click();
    await waitFor(() => expect(screen.queryByLabelText('Your first day')).toBeNull());
  });
});
