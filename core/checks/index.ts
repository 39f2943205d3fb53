export * from './steps.ts';
export * from './findings.ts';
