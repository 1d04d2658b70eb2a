/** Written by the build: what it was built of. */
declare module 'virtual:built-of' {
  export const version: string;
  /** CHANGELOG.md as it stands. */
  export const changed: string;
  export const parts: readonly { readonly name: string; readonly version: string; readonly license: string }[];
}
