export { SHELF_KINDS, SHELF_LIMITS, type ShelfKind, shelfKinds } from './kinds.ts';
export { ASKED_NOTHING, isFound, type ShelfQuery } from './found.ts';
export { keptAlone, shelfFacts } from './keep.ts';
export { fromShelf, putFromShelf, type ShelfClip } from './put.ts';
export { changeWords, keepOlder, takeNewer, wouldChange } from './newer.ts';
export { KEPT_KINDS, type KeptKindName, keptKinds, type KeptThing, type KeptWhat, readKept } from './kept/index.ts';
