/** The table of docs/limits.md: every limit, what applies it and what shows that. `npm run limits-table` writes it; a test holds it. */
import { limitProfiles } from '@zabrik/catalogue';
import { isShownAsLimit, type Limit, type LimitTask } from '@zabrik/core';

const byTask: Readonly<Record<LimitTask, readonly [code: string, test: string]>> = {
  receive: ['`receivingLimit`, each line of a delivery', '`test/judging.test.ts`, receiving and storing'],
  'receive-frozen': ['`receivingLimit`, each frozen line', '`test/judging.test.ts`, receiving and storing'],
  store: ['`storageLimit`, the last reading of a lot', '`test/receiving.test.ts`, a lot against the limits'],
  cook: ['`cookingFor`, `cookedSoFar`: the core at the stove', '`test/judging.test.ts`, cooking'],
  histamine: ['`judgeExposure`, all readings of a lot', '`test/receiving.test.ts`, a lot against the limits'],
  parasites: ['`freezingProgress`, a lot and its log', '`test/receiving.test.ts`, a lot against the limits'],
  made: ['`batchDate`, the end of a batch', '`test/judging.test.ts`, the date of a batch'],
  opened: ['`changeKeeping`, a pack that is opened', '`core/larder/keeping.test.ts`'],
};

const byHand: Readonly<Partial<Record<Limit['kind'], string>>> = {
  max_temp: 'judgeTemperature',
  min_temp: 'judgeTemperature',
  cook_time_temp: 'judgeCooking',
  freeze_treatment: 'judgeFreezing',
  exposure: 'judgeExposure',
  time_limit: 'judgeTime',
  sampling_plan: 'judgeSamples',
  shelf_life: 'lastDay',
};

/** What applies a limit, and the test that shows it; undefined: nothing does. */
export function appliedBy(limit: Limit): readonly (readonly [code: string, test: string])[] {
  if (!isShownAsLimit(limit))
    return [
      [
        'shown on Limits as something to look up in the house’s own code, judged by nothing',
        '`test/receiving.test.ts`',
      ],
    ];
  if (limit.covers !== undefined) return limit.covers.map((c) => byTask[c.task]);
  if (limit.kind === 'cooling')
    return [['`coolingProgress`, the log it is chosen for', '`test/judging.test.ts`, cooling']];
  const judge = byHand[limit.kind];
  if (judge !== undefined)
    return [[`\`${judge}\`, a figure held against it on Limits`, '`test/safety.test.ts`, `test/figures.test.ts`']];
  return [['shown on Limits: a rule without a figure to judge by', '`test/safety.test.ts`, limit profiles']];
}

export function limitsTable(): string {
  const lines = [
    '# Every limit, and what applies it',
    '',
    'Made from the catalogue by `npx tsx test/writeLimitsTable.ts`; a test fails when it is not the catalogue’s any more, or when nothing applies a limit.',
    'Figures are recalled from the documents; the house’s own code decides.',
  ];
  for (const profile of limitProfiles) {
    lines.push(
      '',
      `## ${profile.title}`,
      '',
      '| limit | document | applied by | shown by |',
      '| --- | --- | --- | --- |',
    );
    for (const limit of profile.limits) {
      const applied = appliedBy(limit);
      const unique = (at: 0 | 1): string => [...new Set(applied.map((a) => a[at]))].join('; ');
      lines.push(
        `| ${limit.id} | ${limit.citation.document}, ${limit.citation.section} | ${unique(0)} | ${unique(1)} |`,
      );
    }
  }
  return `${lines.join('\n')}\n`;
}
