/** What the pen does in the Plan step, by the active tool. Places are in element space. */
import { find, randomId, type Guide, type GuideForm } from '@tallow/core/document';
import { addGuide, addPath, setGuide, setPath, setPlan } from '@tallow/core/edit';
import { apply, fitRing, IDENTITY, type Point } from '@tallow/core/geometry';
import { asStandIn, smoothedWay, wayThrough } from '@tallow/core/plan';
import { current, homeMatrix } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { playback } from '../playback/playback.ts';
import { edit, endGesture, reEdit, say, takeBack } from '../shot/document.ts';
import { layNow } from './laying.ts';
import { plan, setPlanning, selectPlanned, takePlanTool } from './plan.ts';
import { standHere } from './standing.ts';

/** A press of the pen that goes on until it lifts. */
interface PlanStroke {
  readonly move: (at: Point) => void;
  readonly up: () => void;
  readonly drop: () => void;
}

const NOTHING: PlanStroke = { move: () => undefined, up: () => undefined, drop: () => undefined };
/** How many times farther than usual a base draws a starter to it. */
const STAND_REACH = 4;
const off = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y);

/** Collects a line drawn by hand; what becomes of it is said at its end. */
function drawn(at: Point, done: (points: readonly Point[]) => void): PlanStroke {
  setPlanning({ draft: [at] });
  return {
    move: (p) => {
      setPlanning({ draft: [...plan().draft, p] });
    },
    up: () => {
      const { draft } = plan();
      setPlanning({ draft: [] });
      done(draft);
    },
    drop: () => {
      setPlanning({ draft: [] });
    },
  };
}

function makePath(way: ReturnType<typeof smoothedWay>): void {
  const now = current();
  if (!now || !way) {
    say('A path needs a longer line.');
    return;
  }
  let made = '';
  edit('path', (doc) => {
    const added = addPath(doc, now.element.id, way, 0, randomId);
    made = added.pathId;
    return added.doc;
  });
  selectPlanned({ kind: 'path', id: made });
  // Its points and ticks can be taken at once.
  takePlanTool(null);
}

/** Ends a path set point by point. */
export function finishPoints(closed: boolean): void {
  const { draft } = plan();
  setPlanning({ draft: [] });
  if (draft.length >= 2) makePath({ nodes: wayThrough(draft, closed), closed });
}

/** One more point of a path: on the last one it ends there, on the first it closes. @param reach px that count as on it. */
function setPoint(at: Point, reach: number): void {
  const { draft } = plan();
  const [first, last] = [draft[0], draft.at(-1)];
  if (last && draft.length >= 2 && off(last, at) < reach) finishPoints(false);
  else if (first && draft.length >= 3 && off(first, at) < reach) finishPoints(true);
  else setPlanning({ draft: [...draft, at] });
}

function putAnchor(at: Point): PlanStroke {
  const id = current()?.element.id;
  if (!id) return NOTHING;
  const gesture = `anchor-${randomId()}`;
  const put = (p: Point) => {
    reEdit('anchor', (doc) => setPlan(doc, id, { anchor: { x: p.x, y: p.y } }), gesture);
  };
  put(at);
  return {
    move: put,
    up: endGesture,
    drop: () => {
      takeBack(gesture);
    },
  };
}

/** Names of bases: A to Z, then AA and so on. */
const letters = (n: number): string =>
  (n < 26 ? '' : letters(Math.floor(n / 26) - 1)) + String.fromCharCode(65 + (n % 26));

function putBase(at: Point): PlanStroke {
  const element = current()?.element;
  if (!element) return NOTHING;
  const gesture = `base-${randomId()}`;
  const id = randomId();
  const used = new Set(element.bases.map((b) => b.name));
  let n = 0;
  while (used.has(letters(n))) n++;
  const put = (p: Point) => {
    reEdit(
      'base',
      (doc) => {
        const bases = find(doc, 'element', element.id)?.bases ?? [];
        return setPlan(doc, element.id, { bases: [...bases, { id, name: letters(n), x: p.x, y: p.y, notes: [] }] });
      },
      gesture,
    );
  };
  put(at);
  selectPlanned({ kind: 'base', id });
  return {
    move: put,
    up: endGesture,
    drop: () => {
      takeBack(gesture);
    },
  };
}

function putGuide(form: GuideForm, at: Point): PlanStroke {
  const now = current();
  if (!now) return NOTHING;
  const { forShot } = plan();
  const way = forShot ? homeMatrix(now, selection().frame) : IDENTITY;
  const from = apply(way, at);
  let id = '';
  edit('guide', (doc) => {
    const added = addGuide(
      doc,
      forShot ? null : now.element.id,
      form,
      { ...from, toX: from.x + 200, toY: from.y + 120 },
      randomId,
    );
    id = added.guideId;
    return added.doc;
  });
  selectPlanned({ kind: 'guide', id });
  const gesture = `guide-${randomId()}`;
  const put = (point: Point) => {
    const p = apply(way, point);
    const to: Partial<Guide> = form === 'level' || form === 'plumb' ? { x: p.x, y: p.y } : { toX: p.x, toY: p.y };
    reEdit('guide', (doc) => setGuide(doc, id, to), gesture);
  };
  return { move: put, up: endGesture, drop: endGesture };
}

/** The stand-in of the selected path, drawn as a closed form. */
function drawForm(points: readonly Point[]): void {
  const now = current();
  const { hand } = plan();
  const path = hand?.kind === 'path' ? now && find(now.doc, 'path', hand.id) : undefined;
  if (!path) {
    say('Take a path first: the form is drawn for its ticks.');
    return;
  }
  if (points.length < 8) {
    say('The form needs a longer outline.');
    return;
  }
  const shape = asStandIn(
    fitRing(
      points.map((p): [number, number] => [p.x, p.y]),
      1.5,
    ),
  );
  edit('drawn stand-in', (doc) => setPath(doc, path.id, { standIn: { ...path.standIn, form: 'shape', shape } }));
  takePlanTool(null);
}

/** Points of a base line that is drawn for a starter. */
const FOOT_POINTS = 24;

function drawFoot(points: readonly Point[]): void {
  const now = current();
  const { hand } = plan();
  const starter = hand?.kind === 'starter' ? now && find(now.doc, 'starter', hand.id) : undefined;
  const way = smoothedWay(points, 3);
  if (!starter || !way) {
    say(starter ? 'The base needs a longer line.' : 'Take a starter first: the base is drawn for it.');
    return;
  }
  const step = Math.max(1, points.length / FOOT_POINTS);
  const chosen = Array.from({ length: Math.ceil(points.length / step) }, (_, i) => points[Math.floor(i * step)]!);
  const line = Float32Array.from([...chosen, points.at(-1)!].flatMap((p) => [p.x - starter.x, p.y - starter.y]));
  takePlanTool(null);
  void layNow({ ...starter, line }, 'base line');
}

/**
 * Begins what the active tool does where the pen landed.
 * @param reach px of element space that count as near.
 */
export function beginPlanStroke(at: Point, reach: number): PlanStroke {
  const { tool } = plan();
  if (playback().playing) return NOTHING;
  switch (tool) {
    case 'path':
      return drawn(at, (points) => {
        makePath(smoothedWay(points));
      });
    case 'points':
      setPoint(at, reach);
      return NOTHING;
    case 'form':
      return drawn(at, drawForm);
    case 'foot':
      return drawn(at, drawFoot);
    case 'stand': {
      let here = at;
      return {
        ...NOTHING,
        move: (p) => {
          here = p;
        },
        up: () => {
          void standHere(here, reach * STAND_REACH);
        },
      };
    }
    case 'anchor':
      return putAnchor(at);
    case 'base':
      return putBase(at);
    case 'level':
    case 'plumb':
    case 'line':
    case 'grid':
      return putGuide(tool, at);
    case null:
      selectPlanned(null);
      return NOTHING;
  }
}
