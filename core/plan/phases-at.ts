/** Phases whose borders lie where something hits. */
import type { NewId, Phase } from '../document/index.ts';

/**
 * Phases of an element with borders on some frames of it. Where it has none, it is parted there; where it has, each frame
 * draws the nearest border to it that no other frame has, and the phases stay in their order.
 * @param length frames of the element. @param frames borders, frames of the element; those outside of it are passed over.
 */
export function phasesAt(
  phases: readonly Phase[],
  length: number,
  frames: readonly number[],
  newId: NewId,
): readonly Phase[] {
  const inside = [...new Set(frames)].filter((frame) => frame > 0 && frame < length).sort((a, b) => a - b);
  if (inside.length === 0) return phases;
  if (phases.length < 2) {
    const borders = [0, ...inside, length];
    return borders.slice(1).map((to, i) => ({
      id: i === 0 ? (phases[0]?.id ?? newId()) : newId(),
      name: i === 0 ? (phases[0]?.name ?? 'Before') : inside.length === 1 ? 'After' : `Hit ${i}`,
      length: to - borders[i]!,
      hold: phases[0]?.hold ?? 2,
    }));
  }
  const borders = phases.map((_, i) => phases.slice(0, i).reduce((sum, phase) => sum + phase.length, 0));
  const end = borders.at(-1)! + phases.at(-1)!.length;
  const moved = new Set<number>([0]);
  for (const frame of inside) {
    const free = borders.map((_, i) => i).filter((i) => !moved.has(i));
    // A border may go as far as its neighbours let it.
    const may = free.filter((i) => frame > borders[i - 1]! && frame < (borders[i + 1] ?? end));
    const nearest = may.toSorted((a, b) => Math.abs(borders[a]! - frame) - Math.abs(borders[b]! - frame))[0];
    if (nearest === undefined) continue;
    borders[nearest] = frame;
    moved.add(nearest);
  }
  return phases.map((phase, i) => ({ ...phase, length: (borders[i + 1] ?? end) - borders[i]! }));
}
