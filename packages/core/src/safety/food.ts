/** What a thing is to a limit: the classes that documents speak of. */

/** Raw animals that are cooked through; what else is in a pot sets no core of its own. */
export const cookedFoods = [
  'fish',
  'scombroid',
  'crustacean',
  'live-crustacean',
  'live-shellfish',
  'shellfish',
  'cephalopod',
  'poultry',
  'rabbit',
  'small-game',
  'large-game',
  'meat',
  'offal',
  'mince',
  'eggs',
] as const;
export const foods = [...cookedFoods, 'ready', 'dairy', 'other', 'unknown'] as const;
export type Food = (typeof foods)[number];

/** How meat or fish is when it is cooked: whole muscle, minced (or pierced, or injected), stuffed or a stuffing. */
export const cookedAs = ['whole', 'minced', 'stuffed'] as const;
export type CookedAs = (typeof cookedAs)[number];

/** Genera whose flesh forms histamine when it warms up. */
const histamineGenera: ReadonlySet<string> = new Set(
  [
    'Scomber Scomberomorus Thunnus Katsuwonus Euthynnus Auxis Sarda Acanthocybium Rastrelliger Gymnosarda Orcynopsis', // Scombridae
    'Clupea Sardina Sardinops Sardinella Sprattus Alosa Brevoortia Etrumeus Opisthonema', // Clupeidae
    'Engraulis Anchoa Stolephorus Encrasicholina', // Engraulidae
    'Coryphaena Pomatomus Scomberesox Cololabis', // mahi-mahi, bluefish, saury
    'Seriola Caranx Decapterus Trachurus Elagatis', // jacks, amberjack
    'Makaira Istiompax Kajikia Tetrapturus Istiophorus Arripis Lepidocybium Ruvettus', // marlin, sailfish, kahawai, escolar
  ].flatMap((genera) => genera.split(' ')),
);
const histamineNames =
  /\b(mackerels?|tunas?|bonitos?|skipjacks?|sardines?|pilchards?|herrings?|sprats?|shads?|anchov(y|ies)|mahi|dorado|dolphinfish|bluefish|saury|sauries|amberjacks?|yellowtails?|kingfish|jacks?|scads?|marlins?|sailfish|wahoos?|kahawai|escolar|oilfish)\b/i;

interface NamedSpecies {
  readonly name: string;
  readonly scientific: string;
  readonly group: string;
  /** Said for a species of the house's own, where its name does not tell. */
  readonly histamine?: boolean;
}

/**
 * Whether histamine forms in this fish when it warms up: by what was said of it, by its genus, else by its name.
 *
 * Source  families of (EC) 2073/2005 Annex I 1.26 and the scombrotoxin species of the FDA Hazards guide, chapter 7 and table 3-2; recalled,
 *         the wider of the two.
 * @example { name: "Sardine", scientific: "Sardina pilchardus" } -> true; hake -> false
 */
export function formsHistamine(species: NamedSpecies | undefined): boolean {
  if (species === undefined || !/fish|pelagic/.test(species.group)) return false;
  if (species.histamine !== undefined) return species.histamine;
  return histamineGenera.has(species.scientific.trim().split(/\s+/)[0] ?? '') || histamineNames.test(species.name);
}

/** Squid, cuttlefish and octopus: molluscs that are cut like fish. */
export const isCephalopod = (species: { readonly id: string; readonly group: string } | undefined): boolean =>
  species?.group === 'mollusc' && /squid|cuttle|octopus|calamar/.test(species.id);

export interface FoodFacts {
  readonly species?: (NamedSpecies & { readonly id: string }) | undefined;
  /** Kind of piece, and the group it is of, where it is a piece. */
  readonly category?: string | null;
  readonly categoryGroup?: string | undefined;
  readonly ready: boolean;
  /** It came alive and is whole still. */
  readonly live?: boolean;
  /** Game that was raised and slaughtered under inspection; undefined where nobody said. */
  readonly farmed?: boolean | undefined;
}

const ofGroup = (species: NonNullable<FoodFacts['species']>, farmed: boolean | undefined): Food => {
  switch (species.group) {
    case 'round-fish':
    case 'flatfish':
    case 'large-pelagic':
      return formsHistamine(species) ? 'scombroid' : 'fish';
    case 'crustacean':
      return 'crustacean';
    case 'mollusc':
      return isCephalopod(species) ? 'cephalopod' : 'shellfish';
    case 'poultry':
      return 'poultry';
    case 'feathered-game':
      return farmed === true ? 'poultry' : 'small-game';
    case 'furred-game':
      if (/rabbit/.test(species.id)) return farmed === false ? 'small-game' : 'rabbit';
      if (/hare/.test(species.id)) return 'small-game';
      return farmed === true ? 'meat' : 'large-game';
    case 'farmed-meat':
      return 'meat';
    default:
      return 'unknown';
  }
};

const ofPiece = (category: string, group: string): Food => {
  if (/giblets|offal|liver|blood/.test(category) && group !== 'fish') return 'offal';
  switch (group) {
    case 'fish':
      return /^oily/.test(category) ? 'scombroid' : 'fish';
    case 'crustacean':
      return 'crustacean';
    case 'mollusc':
      return /^cephalopod/.test(category) ? 'cephalopod' : 'shellfish';
    case 'poultry':
      return 'poultry';
    case 'game':
      return /^venison/.test(category) ? 'large-game' : 'small-game';
    case 'meat':
      return 'meat';
    case 'vegetable':
    case 'rendered':
      return 'other';
    default:
      return 'unknown';
  }
};

/**
 * What a lot is to a limit. What nobody can tell is unknown, which no limit covers by itself: it is asked.
 *
 * Keeps   what is ready to eat is ready, whatever it was; a crustacean or a shellfish that came alive is live while it is whole.
 */
export function foodOf({ species, category, categoryGroup, ready, live, farmed }: FoodFacts): Food {
  const ofWhat =
    species !== undefined
      ? ofGroup(species, farmed)
      : category === null || category === undefined || categoryGroup === undefined
        ? 'unknown'
        : ofPiece(category, categoryGroup);
  if (live === true && ofWhat === 'crustacean') return 'live-crustacean';
  if (live === true && ofWhat === 'shellfish') return 'live-shellfish';
  // cooked crustaceans and shellfish keep the cold of fish
  if (ready) return ofWhat === 'crustacean' || ofWhat === 'shellfish' ? ofWhat : 'ready';
  if (
    species !== undefined &&
    /giblets|offal|liver/.test(category ?? '') &&
    ['poultry', 'meat', 'rabbit', 'small-game', 'large-game'].includes(ofWhat)
  )
    return 'offal';
  return ofWhat;
}
