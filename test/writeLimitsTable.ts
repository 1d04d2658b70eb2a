import { writeFileSync } from 'node:fs';
import { limitsTable } from './limitsTable.ts';

writeFileSync(new URL('../docs/limits.md', import.meta.url), limitsTable());
