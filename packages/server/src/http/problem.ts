import { type ProblemCode, type ProblemDocument, problems } from '@zabrik/contract';
import { Refusal } from '@zabrik/core';
import { BaseError, ConnectionError, DatabaseError, UniqueConstraintError } from 'sequelize';
import type { ZodError } from 'zod';

/** A refusal on its way to the person: a code from the contract, and a sentence with the figures where there are any. */
export class Problem extends Error {
  readonly code: ProblemCode;
  readonly detail: string | undefined;
  readonly fields: readonly { path: string; message: string }[];

  constructor(
    code: ProblemCode,
    detail?: string,
    fields: readonly { path: string; message: string }[] = [],
    options?: ErrorOptions,
  ) {
    super(detail ?? problems[code].title, options);
    this.name = 'Problem';
    this.code = code;
    this.detail = detail;
    this.fields = fields;
  }
}

/** Every issue of a Zod error with its path, unions opened up so that the field is named and not the union. */
export function fieldsOf(error: ZodError): { path: string; message: string }[] {
  const seen = new Map<string, string>();
  const walk = (issues: ZodError['issues'], prefix: readonly PropertyKey[]): void => {
    for (const issue of issues) {
      const path = [...prefix, ...issue.path];
      if (issue.code === 'invalid_union' && issue.errors.length > 0) {
        // the branch that got furthest is the one that was meant
        const nearest = [...issue.errors].sort((a, b) => a.length - b.length)[0];
        if (nearest !== undefined) walk(nearest as ZodError['issues'], path);
        continue;
      }
      if (issue.code === 'unrecognized_keys') {
        for (const key of issue.keys) seen.set([...path, key].map(String).join('.'), 'nobody asked for this');
        continue;
      }
      const name = path.map(String).join('.');
      if (!seen.has(name)) seen.set(name, issue.message);
    }
  };
  walk(error.issues, []);
  return [...seen].map(([path, message]) => ({ path, message }));
}

/** 40001 and 40P01: the database gave this one up so that another could go on; 55P03: it waited too long for a lock. */
const COLLISIONS: ReadonlySet<string> = new Set(['40001', '40P01', '55P03']);

/** Whether another was at the same rows at the same moment: begun once more, it is likely to pass. */
export const isCollision = (error: unknown): boolean =>
  error instanceof DatabaseError && COLLISIONS.has((error.parent as { code?: string }).code ?? '');

/** 57P01..57P03: the server is being shut down or starts up; 08xxx: the line was lost; 53300: it has no line left for us just now. */
const isAway = (code: string): boolean => code.startsWith('57P') || code.startsWith('08') || code === '53300';

const ofDatabase = (error: BaseError): Problem => {
  if (error instanceof ConnectionError) return new Problem('database_away');
  // the id is taken by something that is not this house's to see
  if (error instanceof UniqueConstraintError) return new Problem('key_reused');
  const code = error instanceof DatabaseError ? (error.parent as { code?: string }).code : undefined;
  if (code !== undefined && COLLISIONS.has(code)) return new Problem('busy');
  if (code === 'ZB003') return new Problem('not_enough');
  if (code === '53100') return new Problem('disk_full');
  if (code !== undefined && isAway(code)) return new Problem('database_away');
  if (code === undefined && /terminat|ECONN|not queryable|closed/i.test(error.message))
    return new Problem('database_away');
  return new Problem('broken');
};

/** Whatever was thrown, as a problem. What nobody expected becomes `broken` and is for the log alone. */
export function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof Refusal) {
    switch (error.code) {
      case 'nothing_accepted':
        return new Problem('nothing_accepted');
      case 'no_such_form':
        return new Problem('plan_does_not_fit');
      default:
        return new Problem('invalid');
    }
  }
  if (error instanceof BaseError) return ofDatabase(error);
  if (error instanceof Error) {
    const kind = (error as { type?: string }).type;
    if (kind === 'entity.too.large') return new Problem('too_large');
    if (kind === 'entity.parse.failed') return new Problem('invalid', 'The request is not JSON.');
    const status = (error as { status?: number }).status;
    if (status !== undefined && status >= 400 && status < 500) return new Problem('invalid');
    const code = (error as { code?: unknown }).code;
    if (code === 'ECONNREFUSED' || code === 'ECONNRESET' || (typeof code === 'string' && isAway(code)))
      return new Problem('database_away');
  }
  return new Problem('broken');
}

/**
 * A failure that is known to have left nothing behind, said so: the transaction was taken back before it could be kept. Where it is not known,
 * as when the line was lost while the database kept it, nobody says it.
 */
export function nothingChanged(error: unknown): unknown {
  const problem = asProblem(error);
  return problem.code === 'broken' || problem.code === 'database_away'
    ? new Problem(problem.code, `${problems[problem.code].title} Nothing was changed.`, [], { cause: error })
    : error;
}

export function problemDocument(problem: Problem, requestId: string | undefined): ProblemDocument {
  const first = problem.fields[0];
  return {
    type: `urn:zabrik:problem:${problem.code}`,
    code: problem.code,
    title: problems[problem.code].title,
    status: problems[problem.code].status,
    ...(problem.detail === undefined ? {} : { detail: problem.detail }),
    ...(first === undefined ? {} : { field: first.path, fields: [...problem.fields] }),
    ...(requestId === undefined ? {} : { requestId }),
  };
}
