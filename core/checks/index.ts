export * from './steps.ts';
export * from './findings.ts';
export * from './seam.ts';
