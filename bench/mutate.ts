/**
 * npm run mutate -- [share] [seed]: changes the core in one place at a time and sees whether a test goes red. By hand, in a checkout of its own: the
 * changes are made in place. `share` of the core's lines, in blocks of ten drawn at random by `seed`; all of it takes hours on two cores.
 */
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { seededRandom } from '@zabrik/core/simulator';

const BLOCK = 10;
const share = Number(process.argv[2] ?? 0.1);
const seed = process.argv[3] ?? 'mutation';
const root = new URL('..', import.meta.url).pathname;
const files = execFileSync('git', ['ls-files', 'packages/core/src/**/*.ts', 'packages/core/src/*.ts'], {
  cwd: root,
  encoding: 'utf8',
})
  .trim()
  .split('\n')
  // what is tested is the core; a simulated kitchen and lists of exports are not
  .filter((file) => !/\.test\.ts$|\/simulator\/|\/index\.ts$/.test(file));
const random = seededRandom(seed);
const mutate = files.flatMap((file) => {
  const lines = readFileSync(`${root}${file}`, 'utf8').split('\n').length;
  return Array.from({ length: Math.ceil(lines / BLOCK) }, (_, i) => i)
    .filter(() => random.whole(0, 9_999) < share * 10_000)
    .map((i) => `${file}:${i * BLOCK + 1}-${Math.min(lines, (i + 1) * BLOCK)}`);
});
const config = {
  testRunner: 'vitest',
  vitest: { configFile: 'bench/vitest.core.ts' },
  plugins: ['@stryker-mutator/vitest-runner'],
  mutate,
  inPlace: true,
  concurrency: 2,
  coverageAnalysis: 'perTest',
  // what runs while tests are collected would need all tests for each change: left out, and where it runs in a test as well judged by that alone
  ignoreStatic: true,
  // words are judged by people: what a sentence says is not arithmetic
  mutator: { excludedMutations: ['StringLiteral', 'ObjectLiteral'] },
  timeoutMS: 20_000,
  reporters: ['clear-text', 'json'],
  clearTextReporter: { allowColor: false, logTests: false },
  jsonReporter: { fileName: '.zabrik/mutation.json' },
  tempDirName: '.zabrik/stryker',
  checkers: [],
};
mkdirSync(`${root}.zabrik`, { recursive: true });
const path = `${root}.zabrik/stryker.config.json`;
writeFileSync(path, JSON.stringify(config, null, 1));
process.stdout.write(
  `${mutate.length} blocks of ${BLOCK} lines, ${share * 100} % of ${files.length} files, seed ${seed}\n`,
);
execFileSync('npx', ['stryker', 'run', path], { cwd: root, stdio: 'inherit' });
