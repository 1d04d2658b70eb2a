/** What the tests use of the food composition table; the package's own types do not say how it is imported. */
interface Row {
  readonly code: string;
  readonly name: string;
  readonly water: number;
  readonly protcnt: number;
  readonly fatce: number;
}
declare const compositions: ((text: string) => readonly Row[]) & { load(): Promise<unknown> };
export default compositions;
