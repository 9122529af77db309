import 'reflect-metadata';

export * from './catalogue.ts';
export * from './checks.ts';
export * from './drawing.ts';
export * from './facts.ts';
export * from './lab.ts';
export * from './laboratory.ts';
export * from './people.ts';
export * from './pictures.ts';
export * from './problems.ts';
export * from './rates.ts';
export * from './report.ts';
export * from './roles.ts';
export * from './rounds.ts';
export * from './sampling.ts';
export * from './site.ts';
export * from './symbols.ts';
