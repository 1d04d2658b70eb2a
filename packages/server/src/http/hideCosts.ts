/** What a viewer may see of costs is the house's choice. Where it keeps them to itself, every amount in an answer to a viewer is 0. */
import type { EndpointId } from '@zabrik/contract';
import type { Sequelize } from 'sequelize';
import { readHouse } from '../db/house.ts';
import type { Actor } from '../services.ts';
import { Problem } from './problem.ts';

/** Answers that are about nothing but money. */
const aboutMoney: ReadonlySet<EndpointId> = new Set([
  'receive.prices',
  'receive.priceLists',
  'receive.priceHistory',
  'receive.claimPdf',
]);

/** Names of amounts end so, throughout the contract: a test holds every answer's shape against it. */
export const AMOUNT = /(?:M|^m)inor(?:Per(?:Kg|Hour|Kwh))?$/;

export const keepsCosts = async (db: Sequelize, actor: Actor): Promise<boolean> =>
  actor.role === 'viewer' && (await readHouse(db, actor)).settings.viewersSeeCosts === false;

function blank(value: unknown, isAmount: boolean): unknown {
  if (typeof value === 'number') return isAmount ? 0 : value;
  if (Array.isArray(value)) return value.map((inner) => blank(inner, isAmount));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, inner]) => [name, blank(inner, isAmount || AMOUNT.test(name))]),
  );
}

/** The answer as this person may see it. Errors: `not_your_role`, of what is about money alone. */
export async function shownTo(db: Sequelize, actor: Actor, endpointId: string, answer: unknown): Promise<unknown> {
  if (!(await keepsCosts(db, actor))) return answer;
  if (aboutMoney.has(endpointId as EndpointId))
    throw new Problem('not_your_role', 'This house keeps prices and costs to those who cook. Ask a chef.');
  return blank(answer, false);
}
