import papa from 'papaparse';

type Cell = string | number | null;

/** Gives a table as a file of comma-separated values, with its heads; what a spreadsheet would run is made plain text. */
export function saveCsv(file: string, heads: readonly string[], rows: readonly (readonly Cell[])[]): void {
  const text = papa.unparse(
    { fields: [...heads], data: rows.map((row) => row.map((cell) => cell ?? '')) },
    { escapeFormulae: true, newline: '\r\n' },
  );
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob(['\ufeff', text], { type: 'text/csv;charset=utf-8' }));
  link.download = file;
  link.click();
  URL.revokeObjectURL(link.href);
}
