/** New starters: they stand where they belong, sized to the picture, until the pen says where. */
import { find, findAll, randomId, same, shotOf, type Effect, type Starter } from '@tallow/core/document';
import { startersOf } from '@tallow/core/edit';
import { apply, invert, mapBox, type Point } from '@tallow/core/geometry';
import { settingsOf } from '@tallow/core/controls';
import { newStarter, standingPlace, starterOf, type StandingGround, type Preset } from '@tallow/core/starters';
import { say } from '../shot/document.ts';
import { current, homeMatrix, type Current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { compute } from '../workers/compute-client.ts';
import { layNow, workOf } from './laying.ts';
import { plan, setPlanning } from './plan.ts';

/** What starters of the active element can stand on. */
function groundOf(now: Current): StandingGround {
  const { doc, element } = now;
  const { width, height, guides } = shotOf(doc);
  const inward = invert(homeMatrix(now, selection().frame));
  const floors = findAll(doc, 'guide', guides)
    .filter(({ form, visible, elementId }) => form === 'level' && visible && (!elementId || elementId === element.id))
    .map((guide) => (guide.elementId ? guide.y : apply(inward, guide).y));
  const { anchor } = element;
  return {
    picture: mapBox(inward, { left: 0, top: 0, right: width, bottom: height }),
    bases: element.bases.map((base) => ({ x: base.x, y: base.y })),
    anchor: anchor.x === 0 && anchor.y === 0 ? null : anchor,
    floors,
  };
}

/** The starter with a preset's settings as they fit where it stands. What follows a path is as long as that. */
async function fittedTo(
  now: Current,
  starter: Starter,
  preset: Preset,
  pen: Point | null,
  reach = 0,
): Promise<Starter> {
  const kind = starterOf(starter.effect);
  const ground = groundOf(now);
  const raw = {
    ...starter,
    settings: settingsOf(kind, preset.settings),
    length: preset.length ?? kind.length,
    hold: preset.hold ?? kind.hold,
  };
  if (starter.pathId) return raw;
  const placed = { ...raw, ...standingPlace(kind, ground, pen, reach) };
  const work = workOf(placed);
  return work ? { ...placed, settings: await compute().fitted(work, ground, pen !== null) } : placed;
}

/** Lays a new starter of an effect on the active element, along the selected path if it follows one. The next press in the picture says where else it stands. */
export async function layNew(effect: Effect): Promise<void> {
  const now = current();
  if (!now) return;
  const kind = starterOf(effect);
  const preset = kind.presets[0]!;
  const { hand } = plan();
  const path = hand?.kind === 'path' && kind.follows === 'path' ? find(now.doc, 'path', hand.id) : undefined;
  const seed = 1 + startersOf(now.doc, now.element.id).length * 7 + 6;
  const fresh = newStarter(now.element, effect, preset, seed, randomId);
  const onPath = path ? { pathId: path.id, x: path.nodes[0]!, y: path.nodes[1]!, from: path.from } : {};
  const starter = await fittedTo(now, { ...fresh, ...onPath }, preset, null);
  await layNow(starter, `lay ${kind.name.toLowerCase()}`);
  if (!path)
    setPlanning({ tool: 'stand', standing: { starterId: starter.id, preset, settings: starter.settings }, draft: [] });
}

/** Puts the starter that was laid last where the pen was pressed, element space. @param reach px within which a base is meant. */
export async function standHere(pen: Point, reach: number): Promise<void> {
  const now = current();
  const { standing } = plan();
  setPlanning({ tool: null, standing: null });
  const starter = now && find(now.doc, 'starter', standing?.starterId);
  if (!now || !starter || !standing) {
    say('The starter that was to stand here is gone.');
    return;
  }
  const kind = starterOf(starter.effect);
  // What has been set by hand meanwhile stays: then it only moves.
  const untouched = same(starter.settings, standing.settings);
  const moved = untouched
    ? { ...(await fittedTo(now, starter, standing.preset, pen, reach)), length: starter.length, hold: starter.hold }
    : { ...starter, ...standingPlace(kind, groundOf(now), pen, reach) };
  await layNow(moved, `place ${kind.name.toLowerCase()}`);
}

/** Lays a preset in place of what a starter has laid, where that stands. @param own whether it is the user's: then it is as large as it was kept. */
export async function layPreset(starter: Starter, preset: Preset, own: boolean): Promise<void> {
  const now = current();
  if (!now) return;
  const kind = starterOf(starter.effect);
  const name = `lay ${preset.name.toLowerCase()}`;
  const time = { length: preset.length ?? kind.length, hold: preset.hold ?? kind.hold };
  if (own) await layNow({ ...starter, ...time, settings: settingsOf(kind, preset.settings) }, name);
  else {
    const work = workOf({ ...starter, ...time, settings: settingsOf(kind, preset.settings) });
    if (!work) return;
    const settings = starter.pathId ? work.starter.settings : await compute().fitted(work, groundOf(now), true);
    await layNow({ ...starter, ...time, settings }, name);
  }
}
