/** The scene of a starter that is already in a document, and a starter as it is laid first. */
import {
  find,
  type Effect,
  type Element,
  type NewId,
  type Path,
  type ShotDocument,
  type Starter,
} from '../document/index.ts';
import { mix } from '../geometry/index.ts';
import { holdsFor, moveWay, ticksOf, wayOf } from '../plan/index.ts';
import { starterOf } from './kinds.ts';
import { settingsOf } from '../controls/index.ts';
import { type Preset, type Scene, type StarterKind } from './starter.ts';

/** A path's own spacing: how far along it something is after a share of the time. */
function paceOf(path: Path): Scene['pace'] {
  const ticks = ticksOf(path);
  const last = ticks.length - 1;
  return (share) => {
    const at = Math.min(1, Math.max(0, share)) * last;
    const i = Math.min(last - 1, Math.floor(at));
    return mix(ticks[i]!, ticks[i + 1]!, at - i);
  };
}

/** How long each drawing of a starter is held, in frames. */
export function starterHolds(doc: ShotDocument, starter: Starter): number[] {
  const phases = find(doc, 'element', starter.elementId)?.phases ?? [];
  return holdsFor(starter.from, starter.length, starter.hold, phases);
}

/** What a starter works from, with its path and the phases of its element as they are now. */
export function sceneOf(doc: ShotDocument, starter: Starter): Scene {
  const kind = starterOf(starter.effect);
  const path = find(doc, 'path', starter.pathId);
  const settings = settingsOf(kind, starter.settings);
  const { line } = starter;
  let frame = 0;
  const starts = starterHolds(doc, starter).map((hold) => (frame += hold) - hold);
  return {
    settings,
    seed: starter.seed,
    line: line && Array.from({ length: line.length / 2 }, (_, i) => ({ x: line[i * 2]!, y: line[i * 2 + 1]! })),
    way: path ? wayOf({ nodes: moveWay(path.nodes, -starter.x, -starter.y), closed: path.closed }) : null,
    pace: path ? paceOf(path) : (share) => share,
    travel: path ? (path.ticks - 1) * path.hold : null,
    cycle: kind.cycles(settings),
    length: starter.length,
    starts,
  };
}

/** A scene with a preset's settings and time, following nothing. */
export function sceneFor(kind: StarterKind, preset: Preset, seed: number): Scene {
  const settings = settingsOf(kind, preset.settings);
  const length = preset.length ?? kind.length;
  const hold = preset.hold ?? kind.hold;
  return {
    settings,
    seed,
    line: null,
    way: null,
    pace: (share) => share,
    travel: null,
    cycle: kind.cycles(settings),
    length,
    starts: Array.from({ length: Math.ceil(length / hold) }, (_, i) => i * hold),
  };
}

/** A starter that has laid nothing yet, standing at its element's anchor. */
export function newStarter(
  element: Pick<Element, 'id' | 'anchor'>,
  effect: Effect,
  preset: Preset,
  seed: number,
  newId: NewId,
): Starter {
  const kind = starterOf(effect);
  return {
    kind: 'starter',
    id: newId(),
    elementId: element.id,
    effect,
    seed,
    x: element.anchor.x,
    y: element.anchor.y,
    settings: settingsOf(kind, preset.settings),
    line: null,
    pathId: null,
    from: 0,
    length: preset.length ?? kind.length,
    hold: preset.hold ?? kind.hold,
    layers: {},
    paints: {},
    laid: {},
    along: null,
  };
}
