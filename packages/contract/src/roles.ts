export const roles = ['butcher', 'sous-chef', 'head-chef', 'viewer'] as const;
export type Role = (typeof roles)[number];

export const roleNames: Readonly<Record<Role, string>> = {
  butcher: 'Butcher',
  'sous-chef': 'Sous chef',
  'head-chef': 'Head chef',
  viewer: 'Viewer',
};

/**
 * How long a tablet may lie untouched before it asks again who stands there, minutes: the more a role may do, the shorter. A butcher's hands are
 * in a fish for an hour; a viewer's screen hangs on the wall.
 */
export const idleMinutes: Readonly<Record<Role, number>> = {
  butcher: 240,
  'sous-chef': 60,
  'head-chef': 30,
  viewer: 720,
};
/** How long a session lasts at most, however busy: a long shift. */
export const SHIFT_MINUTES = 14 * 60;

const everyone = roles;
const bench = ['butcher', 'sous-chef', 'head-chef'] as const;
const chefs = ['sous-chef', 'head-chef'] as const;

/** Who may do what: the one table. A test walks it route by route; the web hides what it refuses. `open` needs nobody signed in. */
export const allowed = {
  'access.houses': 'open',
  'access.door': 'open',
  'access.signIn': 'open',
  'access.me': everyone,
  'access.signOut': everyone,
  'access.stillHere': everyone,
  'access.signedIn': everyone,
  'access.signOutPerson': everyone,
  'access.known': everyone,
  'house.read': everyone,
  'house.flow': everyone,
  'house.catalogue': everyone,
  'house.limits': everyone,
  'house.saveLimits': ['head-chef'],
  'house.cautions': everyone,
  'house.keeping': chefs,
  'house.saveViewers': ['head-chef'],
  'house.seeCaution': bench,
  'receive.suppliers': everyone,
  'receive.list': everyone,
  'receive.addSupplier': chefs,
  'receive.read': everyone,
  'receive.accept': bench,
  'receive.close': bench,
  'receive.photographs': everyone,
  'receive.photograph': bench,
  'receive.showPhotograph': everyone,
  'receive.claimPdf': everyone,
  'receive.orders': everyone,
  'receive.order': chefs,
  'receive.callOff': chefs,
  'receive.priceLists': everyone,
  'receive.sendPrices': chefs,
  'receive.undoPrices': chefs,
  'receive.prices': everyone,
  'receive.priceHistory': everyone,
  'receive.probe': everyone,
  'bench.list': everyone,
  'bench.start': bench,
  'bench.read': everyone,
  'bench.weigh': bench,
  'bench.waiting': everyone,
  'bench.goOn': bench,
  'bench.event': bench,
  'bench.people': everyone,
  'bench.reopen': chefs,
  'bench.plan': everyone,
  'bench.savePlan': chefs,
  'bench.retirePlan': chefs,
  'bench.saveSpecies': chefs,
  'bench.close': bench,
  'bench.cancel': bench,
  'bench.scaleCommand': bench,
  'cutting.list': everyone,
  'cutting.read': everyone,
  'cutting.start': bench,
  'cutting.event': bench,
  'cutting.close': bench,
  'cutting.cancel': bench,
  'cutting.learnt': everyone,
  'larder.list': everyone,
  'larder.read': everyone,
  'larder.trace': everyone,
  'larder.takeOut': bench,
  'larder.groups': everyone,
  'larder.keep': bench,
  'larder.undoKeep': bench,
  'larder.split': bench,
  'larder.merge': bench,
  'larder.tubs': everyone,
  'larder.startTub': bench,
  'larder.fill': bench,
  'larder.count': bench,
  'larder.stockTakes': everyone,
  'larder.printLabels': bench,
  'larder.labelPdf': everyone,
  'larder.printed': everyone,
  'larder.showPrinted': everyone,
  'pots.uses': everyone,
  'pots.useVersions': everyone,
  'pots.saveUse': chefs,
  'pots.list': everyone,
  'pots.read': everyone,
  'pots.timers': everyone,
  'pots.plan': bench,
  'pots.event': bench,
  'pots.finish': bench,
  'pots.cancel': bench,
  'pots.boned': everyone,
  'pots.coolings': everyone,
  'pots.startCooling': bench,
  'pots.readCooling': bench,
  'pots.closeCooling': bench,
  'ledger.list': everyone,
  'ledger.sheet': everyone,
  'ledger.cuttings': everyone,
  'ledger.batches': everyone,
  'ledger.exportCsv': chefs,
  'ledger.exportEpcis': chefs,
  'ledger.reverse': chefs,
  'jobs.list': chefs,
  'jobs.ask': chefs,
  'jobs.callOff': chefs,
  'jobs.file': chefs,
  'simulation.pan': bench,
  'simulation.probe': bench,
} as const satisfies Readonly<Record<string, 'open' | readonly Role[]>>;

/** Who may ask for a kind of file, see it among those asked for and fetch it. */
export const filesAllowed = {
  'movements-csv': chefs,
  'movements-epcis': chefs,
  'house-file': ['head-chef'],
} as const satisfies Readonly<Record<string, readonly Role[]>>;
export const mayHaveFile = (role: Role, kind: keyof typeof filesAllowed): boolean =>
  (filesAllowed[kind] as readonly Role[]).includes(role);

export type EndpointId = keyof typeof allowed;

export function mayDo(role: Role, endpointId: EndpointId): boolean {
  const who: 'open' | readonly Role[] = allowed[endpointId];
  return who === 'open' || who.includes(role);
}
