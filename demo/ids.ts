/** Ids of the demo that must stay the same from build to build. */
export const GLASSHOUSE_ID = '7a110000-0000-4000-8000-000000000001';
export const FURNACE_MOUTH_ID = '7a110000-0000-4000-8000-000000000101';
