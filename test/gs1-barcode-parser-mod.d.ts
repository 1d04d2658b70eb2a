declare module 'gs1-barcode-parser-mod' {
  interface Parsed {
    readonly ai: string;
    readonly data: string | number | Date;
  }
  export function parseBarcode(code: string): { readonly parsedCodeItems: readonly Parsed[] };
}
