/** What the drawings of the active layer cover, and where the eye loses them: worked out beside everything else while the smear tool is active. */
import { find, marksInOrder, type Id } from '@tallow/core/document';
import { setElement, subjectLayers } from '@tallow/core/edit';
import { slotsInOrder } from '@tallow/core/timing';
import { typicalArea, type StepSeen, type Volume } from '@tallow/core/smears';
import { create } from 'zustand';
import { current } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { besideCompute } from '../workers/compute-client.ts';

/** A drawing of the row. */
interface VolumeAt extends Volume {
  readonly slot: Id;
  readonly frame: number;
  /** Frames it is held. */
  readonly hold: number;
}

/** A step that the eye does not follow. */
interface LostStep extends StepSeen {
  readonly toSlot: Id;
  readonly toFrame: number;
}

interface Volumes {
  readonly layerId: Id | null;
  readonly drawings: readonly VolumeAt[];
  readonly lost: readonly LostStep[];
  /** The subject's own area, px². */
  readonly default: number;
}

const NONE: Volumes = { layerId: null, drawings: [], lost: [], default: 0 };
export const useVolume = create<Volumes>(() => NONE);

/** ms without a change after which it is looked. */
const WAIT_MS = 250;
let timer: ReturnType<typeof setTimeout> | undefined;
let asked = 0;

/** Looks through the active layer with what is tied to it, soon. */
export function lookForVolumes(): void {
  clearTimeout(timer);
  timer = setTimeout(() => void look(), WAIT_MS);
}

async function look(): Promise<void> {
  asked += 1;
  const own = asked;
  const now = current();
  if (!now?.active) {
    useVolume.setState(NONE);
    return;
  }
  const { doc } = now;
  const { layer, list } = now.active;
  const layers = subjectLayers(doc, layer.id).flatMap((id) => find(doc, 'layer', id) ?? []);
  // A frame made for a smear is no place of its own on the way.
  const made = new Set(Object.values(doc.entities).flatMap((e) => (e.kind === 'smear' && e.slot ? [e.slot] : [])));
  let start = 0;
  const starts = list.runs.map((run) => {
    const at = start;
    start += run.length;
    return at;
  });
  const row = slotsInOrder(list).flatMap(({ slot, index }) => {
    const drawings = layers.map((each) => find(doc, 'drawing', each.slots[slot]));
    if (!drawings[0]) return [];
    return [
      {
        slot,
        frame: starts[index]!,
        hold: list.runs[index]!.length,
        marks: drawings.flatMap((drawing) => (drawing ? marksInOrder(drawing) : [])),
      },
    ];
  });
  const seen = row.filter(({ slot }) => !made.has(slot));
  const worker = besideCompute();
  const { steps } = await worker.volumes(
    seen.map(({ marks }) => marks),
    now.element.time === 'cycle',
  );
  const { volumes } = await worker.volumes(
    row.map(({ marks }) => marks),
    false,
  );
  if (own !== asked) return;
  const smeared = new Set(
    Object.values(doc.entities).flatMap((e) =>
      e.kind === 'smear' && e.layers.includes(layer.id) ? [e.stops.at(-1)!] : [],
    ),
  );
  const meant = new Set(now.element.meant);
  useVolume.setState({
    layerId: layer.id,
    drawings: row.map(({ slot, frame, hold }, i) => ({ slot, frame, hold, ...volumes[i]! })),
    default: typicalArea(seen.map(({ slot }) => volumes[row.findIndex((each) => each.slot === slot)]!.area)),
    lost: steps.flatMap((step) => {
      const to = seen[step.to]!;
      const before = row[row.findIndex(({ slot }) => slot === to.slot) - 1];
      const isSmeared = smeared.has(to.slot) || (before !== undefined && made.has(before.slot));
      return step.fast && !isSmeared && !meant.has(to.slot) ? [{ ...step, toSlot: to.slot, toFrame: to.frame }] : [];
    }),
  });
}

/** Says that a jump is meant, or that it is not: it is left in peace then. */
export function setMeant(slot: Id, meant: boolean): void {
  const now = current();
  if (!now) return;
  edit(meant ? 'this jump is meant' : 'this jump is not meant', (doc) => {
    const element = find(doc, 'element', now.element.id)!;
    const others = element.meant.filter((id) => id !== slot);
    return setElement(doc, element.id, { meant: meant ? [...others, slot] : others });
  });
}

/** Nothing is shown any more. */
export function forgetVolumes(): void {
  clearTimeout(timer);
  asked += 1;
  useVolume.setState(NONE);
}
