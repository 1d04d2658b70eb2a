/** The first screen loads the files that .size-limit.json weighs, and no others: one import of a helper could bring a whole station along unweighed. */
import { readdirSync, readFileSync } from 'node:fs';

const assets = new URL('../packages/web/dist/assets/', import.meta.url);
const weighed = ['index', 'early', 'main', 'shared', 'rolldown-runtime', 'Bench'];
const files = readdirSync(assets).filter((name) => name.endsWith('.js'));
const nameOf = (file) => file.replace(/-[\w-]{8}\.js$/, '');
const brought = files
  .filter((file) => weighed.includes(nameOf(file)))
  .flatMap((file) =>
    [...readFileSync(new URL(file, assets), 'utf8').matchAll(/(?:from|import)\s*"\.\/([^"]+\.js)"/g)].map(
      ([, other]) => ({
        file,
        other,
      }),
    ),
  )
  .filter(({ other }) => !weighed.includes(nameOf(other)));
for (const { file, other } of brought) console.error(`${file} brings ${other} to the first screen, unweighed.`);
process.exitCode = brought.length === 0 ? 0 : 1;
