/** The script of each screen, and which one an address needs. */
export const scripts = {
  receive: () => import('../stations/receive/Receive.tsx'),
  benchList: () => import('../stations/bench/BenchList.tsx'),
  bench: () => import('../stations/bench/Bench.tsx'),
  cutList: () => import('../stations/bench/cutting/CutList.tsx'),
  cutting: () => import('../stations/bench/cutting/Cutting.tsx'),
  plans: () => import('../stations/bench/plans/Plans.tsx'),
  plan: () => import('../stations/bench/plans/Plan.tsx'),
  larder: () => import('../stations/larder/Larder.tsx'),
  tubs: () => import('../stations/larder/Tubs.tsx'),
  stockTake: () => import('../stations/larder/StockTake.tsx'),
  labels: () => import('../stations/larder/Labels.tsx'),
  delivery: () => import('../stations/receive/DeliveryPage.tsx'),
  prices: () => import('../stations/receive/Prices.tsx'),
  limits: () => import('../stations/house/Limits.tsx'),
  trace: () => import('../stations/larder/Trace.tsx'),
  pots: () => import('../stations/pots/Pots.tsx'),
  usePage: () => import('../stations/pots/UsePage.tsx'),
  stove: () => import('../stations/pots/Stove.tsx'),
  run: () => import('../stations/pots/AtTheStove.tsx'),
  cooling: () => import('../stations/pots/CoolingPage.tsx'),
  reckon: () => import('../stations/pots/reckon/Reckon.tsx'),
  ledger: () => import('../stations/ledger/Ledger.tsx'),
  keeping: () => import('../stations/house/KeepingPage.tsx'),
  waiting: () => import('../stations/access/Waiting.tsx'),
  yieldSheet: () => import('../stations/ledger/YieldSheet.tsx'),
};

export interface Needs {
  readonly script: keyof typeof scripts;
  /** The breakdown a bench is opened for. */
  readonly breakdownId?: string;
}

/** What an address needs; nothing for the sign-in, which stands in the app itself. */
export function needsOf(path: string): Needs | undefined {
  const [, station = '', id, part] = path.split('/');
  switch (station) {
    case 'sign-in':
      return undefined;
    case 'receive':
      return { script: id === undefined ? 'receive' : id === 'prices' ? 'prices' : 'delivery' };
    case 'limits':
      return { script: 'limits' };
    case 'server':
      return { script: 'keeping' };
    case 'waiting':
      return { script: 'waiting' };
    case 'larder':
      if (id === 'tubs' || id === 'labels') return { script: id };
      if (id === 'count') return { script: 'stockTake' };
      return { script: part === 'trace' ? 'trace' : 'larder' };
    case 'pots':
      if (id === 'uses') return { script: 'usePage' };
      if (id === 'stove') return { script: part === undefined ? 'stove' : 'run' };
      return { script: id === 'cooling' || id === 'reckon' ? id : 'pots' };
    case 'ledger':
      return { script: id === undefined ? 'ledger' : 'yieldSheet' };
    default:
      if (station === 'bench' && id === 'cut') return { script: part === undefined ? 'cutList' : 'cutting' };
      if (station === 'bench' && id === 'plans') return { script: part === undefined ? 'plans' : 'plan' };
      return station === 'bench' && id !== undefined ? { script: 'bench', breakdownId: id } : { script: 'benchList' };
  }
}
