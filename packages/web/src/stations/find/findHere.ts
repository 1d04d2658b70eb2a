/** What a search finds without the server: screens, settings, and what this tablet has read and kept. */
import type { QueryClient } from '@tanstack/react-query';
import type { FoundThing, Role } from '@zabrik/contract';
import { mayDo } from '@zabrik/contract/roles';
import { codeTyped, FOUND_OF_A_KIND, wordsOf } from '@zabrik/core';
import type { ScreenAt } from '../../app/screenAt.ts';
import { settings } from './settings.ts';

/** A line of what was found: where it leads, what it is called, and in which heap it stands. */
export interface Line {
  readonly key: string;
  readonly group: string;
  readonly to: string;
  readonly name: string;
  readonly code?: string;
  readonly massMg?: number;
  readonly about?: string;
  readonly at?: string;
  readonly open: boolean;
}

const groups: Readonly<Record<FoundThing['kind'], string>> = {
  lot: 'Lots',
  breakdown: 'On the bench',
  cutting: 'Cut to weight',
  batch: 'Pots',
  delivery: 'Deliveries',
  plan: 'Cut plans',
  recipe: 'Recipes',
  supplier: 'Suppliers',
  person: 'People',
};
/** In which order the heaps stand. */
export const groupOrder = [...Object.values(groups), 'Screens', 'Settings'];

const addressOf = ({ kind, id, open }: FoundThing): string => {
  switch (kind) {
    case 'lot':
      return `/larder/${id}`;
    case 'breakdown':
      return open ? `/bench/${id}` : `/ledger/${id}`;
    case 'cutting':
      return `/bench/cut/${id}`;
    case 'batch':
      return `/pots/stove/${id}`;
    case 'delivery':
      return `/receive/${id}`;
    case 'plan':
      return `/bench/plans/${id}`;
    case 'recipe':
      return `/pots/recipes/${id}`;
    case 'supplier':
      return `/receive/suppliers/${id}`;
    case 'person':
      return '/house/people';
  }
};
const NOT_OPEN: Readonly<Record<FoundThing['kind'], string>> = {
  lot: 'used up',
  breakdown: 'closed',
  cutting: 'closed',
  batch: 'done',
  delivery: 'closed',
  plan: 'retired',
  recipe: 'retired',
  supplier: '',
  person: 'left',
};

export const lineOf = (found: FoundThing): Line => ({
  key: `${found.kind}/${found.id}`,
  group: groups[found.kind],
  to: addressOf(found),
  name: found.name,
  ...(found.code === null ? {} : { code: found.code }),
  ...(found.massMg === null || found.massMg === 0 ? {} : { massMg: found.massMg }),
  about: [found.of, found.open ? null : NOT_OPEN[found.kind]].filter((t) => t !== null && t !== '').join(' · '),
  ...(found.at === null ? {} : { at: found.at }),
  open: found.open,
});

interface Kept {
  readonly lots?: readonly {
    readonly id: string;
    readonly code: string;
    readonly name: string;
    readonly massMg: number;
    readonly supplierName: string | null;
    readonly madeAt: string;
  }[];
  readonly breakdowns?: readonly {
    readonly id: string;
    readonly lotCode: string;
    readonly speciesName: string;
    readonly planTitle: string;
    readonly startMg: number;
    readonly state: string;
    readonly by: string;
    readonly startedAt: string;
  }[];
  readonly plans?: readonly { readonly id: string; readonly title: string; readonly retired: boolean }[];
  readonly recipes?: readonly { readonly recipe: { readonly id: string; readonly title: string } }[];
  readonly suppliers?: readonly { readonly id: string; readonly name: string }[];
}
const nobody = { code: null, massMg: null, of: null, at: null, open: true };

/** Everything the tablet has read of a house, as a search tells it. */
function keptHere(client: QueryClient): FoundThing[] {
  const found = new Map<string, FoundThing>();
  const put = (f: FoundThing): void => void found.set(`${f.kind}/${f.id}`, f);
  for (const [, data] of client.getQueriesData<Kept>({})) {
    if (data === null || typeof data !== 'object') continue;
    // other lists of lots tell less of them
    for (const l of data.lots ?? [])
      if (l.code !== undefined && l.name !== undefined && l.madeAt !== undefined)
        put({
          kind: 'lot',
          id: l.id,
          name: l.name,
          code: l.code,
          massMg: l.massMg,
          of: l.supplierName,
          at: l.madeAt,
          open: l.massMg > 0,
        });
    for (const b of data.breakdowns ?? [])
      if (b.lotCode !== undefined)
        put({
          kind: 'breakdown',
          id: b.id,
          name: `${b.speciesName}, ${b.planTitle}`,
          code: b.lotCode,
          massMg: b.startMg,
          of: b.by,
          at: b.startedAt,
          open: b.state === 'open',
        });
    for (const p of data.plans ?? [])
      if (p.title !== undefined) put({ ...nobody, kind: 'plan', id: p.id, name: p.title, open: !p.retired });
    for (const r of data.recipes ?? [])
      if (r.recipe?.title !== undefined) put({ ...nobody, kind: 'recipe', id: r.recipe.id, name: r.recipe.title });
    for (const s of data.suppliers ?? []) put({ ...nobody, kind: 'supplier', id: s.id, name: s.name });
  }
  return [...found.values()];
}

const has = (text: string, words: readonly string[]): boolean => {
  const low = text.toLowerCase();
  return words.every((word) => low.includes(word));
};

/** Of what this tablet has, as a server would find it: the same words, as many of a kind. */
export function findKept(client: QueryClient, text: string): Line[] {
  const words = wordsOf(text);
  const code = codeTyped(text);
  if (words.length === 0) return [];
  const many = new Map<string, number>();
  return keptHere(client)
    .filter((f) => {
      const byCode = code !== undefined && f.code?.startsWith(code) === true;
      return byCode || has([f.name, f.code, f.of].join(' '), words);
    })
    .sort((a, b) => Number(b.open) - Number(a.open) || (b.at ?? '').localeCompare(a.at ?? ''))
    .filter((f) => {
      const n = (many.get(f.kind) ?? 0) + 1;
      many.set(f.kind, n);
      return n <= FOUND_OF_A_KIND;
    })
    .map(lineOf);
}

/** Screens and settings, for whoever may open them. */
export function findPlaces(screens: readonly ScreenAt[], role: Role, text: string): Line[] {
  const words = wordsOf(text);
  if (words.length === 0) return [];
  const may = (to: string): boolean => !/^\/(?:house|limits)/.test(to) || mayDo(role, 'house.people');
  const line = (group: string, to: string, name: string): Line => ({
    key: `${group}/${to}/${name}`,
    group,
    to,
    name,
    open: true,
  });
  return [
    ...screens
      .filter((s) => s.bare !== true && !s.path.includes(':') && may(s.path) && has(s.title, words))
      .map((s) => line('Screens', s.path, s.title)),
    ...settings
      .filter((s) => may(s.to) && has(`${s.name} ${s.also}`, words))
      .map((s) => line('Settings', s.to, s.name)),
  ];
}
