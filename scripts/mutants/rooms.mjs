/**
 * Rooms whose code is changed to see whether a test notices, and the rooms whose tests are asked. Fewer tests find fewer; with those
 * of all rooms a run takes hours.
 */
export const TESTED_BY = {
  timing: ['timing', 'edit', 'testing'],
  document: ['document', 'timing', 'edit', 'testing'],
  edit: ['edit', 'testing'],
  between: ['between', 'edit'],
  paint: ['paint'],
};
