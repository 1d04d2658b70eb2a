/** Places in the body of a request, for tests that put something else there. */
export type Path = readonly string[];

/** The body with something else in one place. */
export function changed(value: unknown, [key, ...rest]: Path, to: unknown): unknown {
  if (key === undefined) return to;
  if (Array.isArray(value)) return value.map((v, i) => (String(i) === key ? changed(v, rest, to) : v));
  return { ...(value as object), [key]: changed((value as Readonly<Record<string, unknown>>)[key], rest, to) };
}
