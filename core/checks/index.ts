export { type Cover, coverOf, DRAWN, LARGE_STEP, seamRatio, stepSizes, wayBetween } from './steps.ts';
export { beyondFrame, type DrawingFacts, factsOf, type Finding, findingsOf } from './findings.ts';
export { bestJoins, type Join, seamReport, type SeamReport } from './seam.ts';
