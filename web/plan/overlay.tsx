/** Everything planned, over the picture: never part of it. With handles in the Plan step, faint while drawing. */
import { find, findAll, shotOf, type ShotDocument } from '@tallow/core/document';
import { setPlan } from '@tallow/core/edit';
import { apply, invert, multiply } from '@tallow/core/geometry';
import { useEffect, useRef } from 'react';
import { homeMatrix, useCurrent, shotFrameOf, type Current } from '../selection/current.ts';
import { useSelection } from '../selection/selection.ts';
import { useViewed } from '../view/viewed.ts';
import { useShowing } from '../picture/showing.ts';
import { usePlayback } from '../playback/playback.ts';
import { viewMatrix } from '../view/view.ts';
import { selectPlanned, usePlan } from './plan.ts';
import { drag } from '../shot/drag.ts';
import { attachPlanKeys } from './plan-keys.ts';
import { GuideMark } from './guide-mark.tsx';
import { PathMark } from './path-mark.tsx';
import { pointsText, ROSE, type Sight } from './sight.ts';
import { StarterMark, StarterPreview } from './starter-mark.tsx';

/** The rose of what is planned: neither the accent nor the onion skin's pair. */
function AnchorMark({ now, sight }: { now: Current; sight: Sight }) {
  const { anchor, id } = now.element;
  const at = apply(sight.matrix, anchor);
  return (
    <g
      transform={`translate(${at.x} ${at.y})`}
      className={sight.live ? 'cursor-move' : ''}
      pointerEvents={sight.live ? 'all' : 'none'}
      data-testid="anchor"
      onPointerDown={(event) => {
        drag(event, {
          placeOf: sight.placeOf,
          name: 'anchor',
          change: (doc, p, from) =>
            setPlan(doc, id, { anchor: { x: anchor.x + p.x - from.x, y: anchor.y + p.y - from.y } }),
        });
      }}
    >
      <title>The anchor: what the effect grows from</title>
      <circle r={13} fill="transparent" />
      <circle r={6} fill="none" stroke={ROSE} strokeWidth={1.5} />
      <path d="M-11 0H11M0 -11V11" stroke={ROSE} strokeWidth={1.2} />
    </g>
  );
}

function BaseMarks({ now, sight }: { now: Current; sight: Sight }) {
  const hand = usePlan((s) => s.hand);
  const frame = useSelection((s) => s.frame);
  const { bases, id } = now.element;
  return bases.map((base) => {
    const at = apply(sight.matrix, base);
    const note = base.notes.find((n) => frame >= n.from && frame < n.from + n.length);
    const chosen = hand?.kind === 'base' && hand.id === base.id;
    return (
      <g
        key={base.id}
        transform={`translate(${at.x} ${at.y})`}
        className={sight.live ? 'cursor-move' : ''}
        pointerEvents={sight.live ? 'all' : 'none'}
        data-base={base.name}
        onPointerDown={(event) => {
          selectPlanned({ kind: 'base', id: base.id });
          drag(event, {
            placeOf: sight.placeOf,
            name: 'base',
            change: (doc, p, from) => {
              const now_ = find(doc, 'element', id)?.bases ?? [];
              return setPlan(doc, id, {
                bases: now_.map((b) =>
                  b.id === base.id ? { ...b, x: base.x + p.x - from.x, y: base.y + p.y - from.y } : b,
                ),
              });
            },
          });
        }}
      >
        <path d="M0 -9L9 5H-9Z" fill={chosen ? ROSE : '#1a1613'} stroke={ROSE} strokeWidth={1.5} />
        <text y={20} textAnchor="middle" className="fill-wax-100 font-mono text-[11px]">
          {base.name}
          {note ? ` · ${note.move}` : ''}
        </text>
      </g>
    );
  });
}

/** Frames over which a guide fades at the ends of its span. */
const FADE = 4;

/** How strongly something with a span is seen on a frame: fading in and out at its ends, 0 beyond them. */
function seenOn(span: { from: number; length: number } | null, frame: number): number {
  if (!span) return 1;
  const [before, after] = [frame - span.from + 1, span.from + span.length - frame];
  return Math.max(0, Math.min(1, before / FADE, after / FADE));
}

/** How strongly a guide is seen: its span is the element's or the shot's. */
const guideSeen = (now: Current, frame: number, turn: number, doc: ShotDocument, id: string): number => {
  const guide = find(doc, 'guide', id);
  if (!guide?.visible || (guide.elementId && guide.elementId !== now.element.id)) return 0;
  return seenOn(guide.span, guide.elementId ? frame : shotFrameOf(now, frame, turn));
};

export function PlanOverlay({ live }: { live: boolean }) {
  const now = useCurrent();
  const view = useViewed((s) => s.view);
  const area = useViewed((s) => s.area);
  const frame = useSelection((s) => s.frame);
  const turn = useSelection((s) => s.turn);
  const held = useShowing((s) => s.planHeld);
  const playing = usePlayback((s) => s.playing);
  const shown = usePlan((s) => s.shown);
  const draft = usePlan((s) => s.draft);
  const tool = usePlan((s) => s.tool);
  const hand = usePlan((s) => s.hand);
  const svg = useRef<SVGSVGElement>(null);
  useEffect(() => (live ? attachPlanKeys() : undefined), [live]);
  if (!now || area.width === 0) return null;
  const { element, doc } = now;
  const shot = viewMatrix(view, shotOf(doc), area);
  const home = homeMatrix(now, frame, turn);
  const matrix = multiply(shot, home);
  const back = invert(matrix);
  const sight: Sight = {
    matrix,
    shot,
    home,
    live: live && tool === null,
    placeOf: ({ clientX, clientY }) => {
      const box = svg.current!.getBoundingClientRect();
      return apply(back, { x: clientX - box.left, y: clientY - box.top });
    },
  };
  const { anchor } = element;
  const nothing =
    element.paths.length + element.bases.length + shotOf(doc).guides.length === 0 && anchor.x === 0 && anchor.y === 0;
  if (!live && nothing) return null;
  const strong = live || held;
  return (
    <>
      {live ? <StarterPreview now={now} matrix={matrix} /> : null}
      <svg
        ref={svg}
        data-testid="plan-marks"
        className="pointer-events-none absolute inset-0 size-full select-none"
        opacity={!shown && !held ? 0 : strong ? (playing ? 0.75 : 1) : 0.34}
        aria-hidden={!live}
      >
        {shotOf(doc)
          .guides.filter((id) => guideSeen(now, frame, turn, doc, id) > 0 || (live && hand?.id === id))
          .map((id) => (
            <g key={id} opacity={Math.max(live ? 0.3 : 0, guideSeen(now, frame, turn, doc, id))}>
              <GuideMark guide={find(doc, 'guide', id)!} sight={sight} area={area} />
            </g>
          ))}
        <BaseMarks now={now} sight={sight} />
        {live || element.bases.length > 0 || element.anchor.x !== 0 || element.anchor.y !== 0 ? (
          <AnchorMark now={now} sight={sight} />
        ) : null}
        {findAll(doc, 'path', element.paths)
          .filter((path) => path.visible)
          .map((path) => (
            // While drawing, a path fades with its time.
            <g key={path.id} opacity={strong ? 1 : seenOn({ from: path.from, length: path.ticks * path.hold }, frame)}>
              <PathMark path={path} sight={sight} faint={!strong} />
            </g>
          ))}
        {live ? <StarterMark now={now} sight={sight} /> : null}
        {draft.length > 0 ? (
          <g data-testid="draft">
            <polyline
              points={pointsText(draft, matrix)}
              fill="none"
              stroke={ROSE}
              strokeWidth={2}
              strokeDasharray="2 4"
              strokeLinecap="round"
            />
            {tool === 'points'
              ? draft.map((p, i) => {
                  const at = apply(matrix, p);
                  return (
                    <circle
                      key={i}
                      cx={at.x}
                      cy={at.y}
                      r={4}
                      fill={i === draft.length - 1 ? ROSE : '#1a1613'}
                      stroke={ROSE}
                    />
                  );
                })
              : null}
          </g>
        ) : null}
      </svg>
    </>
  );
}
