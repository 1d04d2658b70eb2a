import type { Species } from '@zabrik/core';
import { SearchSelect } from '../../kit/SearchSelect.tsx';

interface Goods {
  readonly id: string;
  readonly name: string;
  readonly group: string;
}

interface Props {
  readonly species: readonly Species[];
  readonly goods: readonly Goods[];
  /** The id of an animal or of goods. */
  readonly chosen: string;
  readonly onChoose: (id: string, what: 'species' | 'goods') => void;
  readonly error: string | undefined;
}

const groupNames: Readonly<Record<string, string>> = {
  'round-fish': 'round fish',
  flatfish: 'flatfish',
  'large-pelagic': 'large loins',
  crustacean: 'crustacean',
  mollusc: 'mollusc',
  poultry: 'poultry',
  'feathered-game': 'feathered game',
  'furred-game': 'furred game',
  'farmed-meat': 'meat',
  vegetable: 'vegetable',
  herb: 'herb',
  dairy: 'dairy',
  dry: 'dry goods',
  'bought-stock': 'bought-in stock',
};

/** Searchable list of every animal the catalogue knows, by its kitchen or scientific name, and of what else a kitchen buys. */
export function AnimalPicker({ species, goods, chosen, onChoose, error }: Props) {
  const group = (id: string): string => groupNames[id] ?? id;
  return (
    <SearchSelect
      label="Animal"
      placeholder="Animal: type hake, plaice, guinea…"
      none="No such animal in the catalogue."
      error={error}
      chosen={chosen}
      onChoose={(id) => onChoose(id, goods.some((g) => g.id === id) ? 'goods' : 'species')}
      options={[
        ...[...species]
          .sort((a, b) => a.name.localeCompare(b.name))
          .map((s) => ({ id: s.id, name: s.name, group: group(s.group), also: s.scientific })),
        ...goods.map((g) => ({ id: g.id, name: g.name, group: group(g.group) })),
      ]}
    />
  );
}
