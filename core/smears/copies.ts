/** Copies: the whole form several times between two drawings, each in full volume; or swinging about where it came to rest. */
import { choice, control } from '../controls/index.ts';
import type { Id, Mark, NewId } from '../document/index.ts';
import { mapped } from '../marks/index.ts';
import { NOTHING_SMEARED, type SmearKind, type SmearScene } from './scene.ts';

/** How much of the swing is left on a drawing after the one that arrives; the last brings it to rest, so that a cycle closes. */
export function ringingAt(drawing: number, last: number, swings: number, damping: number): number {
  if (drawing >= last) return 0;
  const share = drawing / last;
  return Math.cos(2 * Math.PI * swings * share) * Math.exp(-damping * 4 * share) * (1 - share);
}

/** The subject's marks moved along the way, paler. @param share of the way, 0 as it arrives, -1 where it left. */
function moved(scene: SmearScene, share: number, opacity: number, newId: NewId): Map<Id, Mark[]> {
  const { flow, layers } = scene;
  return new Map(
    layers.map(({ layerId, after }) => [
      layerId,
      after.flatMap((mark): Mark[] => {
        if (mark.kind === 'rub') return [];
        const there = mapped(mark, (point) => {
          const { along, across } = flow.to(point);
          return flow.from(along + share, across);
        });
        const paler: Mark =
          there.kind === 'shape'
            ? { ...there, opacity: there.opacity * opacity }
            : { ...there, brush: { ...there.brush, opacity: there.brush.opacity * opacity } };
        return [{ ...paler, id: newId() }];
      }),
    ]),
  );
}

/** Several copies of all layers put together, layer by layer. */
function together(copies: readonly Map<Id, Mark[]>[]): Map<Id, Mark[]> {
  const all = new Map<Id, Mark[]>();
  for (const copy of copies) for (const [id, marks] of copy) all.set(id, [...(all.get(id) ?? []), ...marks]);
  return all;
}

/** How many lie between, by number or by distance. */
const countOf = ({ settings, flow }: SmearScene): number => {
  const apart = settings['apart']!;
  return apart > 0 ? Math.min(24, Math.max(1, Math.floor(flow.length / apart))) : settings['count']!;
};

export const COPIES: SmearKind = {
  form: 'copies',
  name: 'Copies',
  says: 'The whole form several times on its way',
  lies: (settings) => (settings['where'] === 1 ? 'behind' : 'in its place'),
  lacks: 'To swing about its rest it needs drawings that follow.',
  controls: [
    control('count', 'How many', '', [1, 24, 1], 3),
    control('fades', 'Fades behind', '%', [0, 95, 5], 0),
    choice('where', 'They', ['lie on the way', 'swing about its rest'], 0),
    control('apart', 'One for so many', 'px', [0, 600, 5], 0, 'more'),
    control('swing', 'Swing', '%', [2, 100, 1], 20, 'more'),
    control('lasts', 'Swing for', 'drawings', [1, 24, 1], 6, 'more'),
    control('swings', 'To and fro', '', [0.5, 8, 0.5], 2, 'more'),
    control('damping', 'Dies down', '%', [0, 100, 5], 50, 'more'),
  ],
  draw: (scene, newId) => {
    const { settings, flow, room, arrived } = scene;
    if (flow.length < 1 || arrived.area === 0) return NOTHING_SMEARED;
    const fades = settings['fades']! / 100;
    if (settings['where'] === 1) {
      const last = Math.min(room, settings['lasts']!);
      const behind = Array.from({ length: last + 1 }, (_, drawing): Mark[] => {
        const left = ringingAt(drawing, last, settings['swings']!, settings['damping']! / 100);
        const far = (settings['swing']! / 100) * left;
        if (Math.abs(far) * flow.length < 0.5) return [];
        // One on each side of its rest, the farther the paler.
        return [far, -far].flatMap((share) =>
          [...moved(scene, share, 1 - 0.5 * fades, newId).values()].reverse().flat(),
        );
      });
      return { own: new Map(), behind };
    }
    const count = countOf(scene);
    const copies = Array.from({ length: count }, (_, i) => {
      const share = (i + 1) / (count + 1);
      return moved(scene, share - 1, 1 - fades * (1 - share), newId);
    });
    return { own: together(copies), behind: [] };
  },
};
