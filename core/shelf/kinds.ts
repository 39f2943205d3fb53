/** What effects on the shelf are sorted by. */
export const SHELF_KINDS = {
  fire: 'Fire',
  smoke: 'Smoke',
  liquid: 'Liquid',
  lightning: 'Lightning',
  explosion: 'Explosion',
  sparks: 'Sparks',
  impact: 'Impact',
  other: 'Other',
} as const;
export type ShelfKind = keyof typeof SHELF_KINDS;
export const shelfKinds = Object.keys(SHELF_KINDS) as ShelfKind[];

/** Characters of a name and a note, and how many tags at most, each of how many characters. */
export const SHELF_LIMITS = { name: 120, note: 2000, tags: 20, tag: 40 } as const;
