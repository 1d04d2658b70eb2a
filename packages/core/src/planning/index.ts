export * from './argue.ts';
export * from './checkPlan.ts';
export * from './decode.ts';
export * from './planModel.ts';
export * from './problem.ts';
export * from './ruleOfThumb.ts';
export * from './search.ts';
