/** The shot *Furnace mouth*: a fire cycle of 24 frames on 2s in a brick arch, computed from seeds alone. */
import {
  constant,
  NO_PLAN,
  documentOf,
  shotOf,
  type Drawing,
  type Element,
  type Entity,
  type Layer,
  type LayerRole,
  type Mark,
  type NewId,
  type Run,
  type RunList,
  type ShotDocument,
  type Swatch,
  type SwatchRole,
} from '@tallow/core/document';
import { seededIds } from '@tallow/core/geometry';
import { fireAt, lickAt, lineAlong, USUAL_FIRE, type FireSettings } from '@tallow/core/starters';
import { FURNACE_MOUTH_ID } from './ids.ts';
import { hearthMarks } from './hearth.ts';

export const FURNACE_FIRE: FireSettings = { ...USUAL_FIRE, seed: 7, height: 640, width: 370, sway: 50 };
export const DRAWINGS = 12;
const HOLD = 2;
/** Drawing of the cycle on which the lick comes free, and for how many it lives. */
const LICK = { from: 4, count: 5 };

const PALETTE: readonly { key: string; name: string; role: SwatchRole; colour: string }[] = [
  { key: 'core', name: 'core', role: 'core', colour: '#fff1bf' },
  { key: 'flame', name: 'flame', role: 'light', colour: '#ffab2e' },
  { key: 'body', name: 'body', role: 'body', colour: '#e6571b' },
  { key: 'line', name: 'line', role: 'outline', colour: '#8a2410' },
  { key: 'mouth', name: 'mouth', role: 'hole', colour: '#0d0706' },
  { key: 'mouth2', name: 'soot', role: 'hole', colour: '#180c08' },
  { key: 'mouth3', name: 'cinder', role: 'hole', colour: '#25110a' },
  { key: 'mouth4', name: 'ember', role: 'hole', colour: '#35170b' },
  { key: 'mortar', name: 'mortar', role: 'shade', colour: '#120e0c' },
  { key: 'brick1', name: 'dim', role: 'shade', colour: '#211a17' },
  { key: 'brick2', name: 'brick', role: 'shade', colour: '#2b201b' },
  { key: 'brick3', name: 'warm', role: 'shade', colour: '#38261d' },
  { key: 'brick4', name: 'hot', role: 'shade', colour: '#472d1f' },
  { key: 'arch', name: 'arch', role: 'shade', colour: '#4a352b' },
  { key: 'arch2', name: 'arch lit', role: 'light', colour: '#5e4233' },
  { key: 'anvil', name: 'anvil', role: 'shade', colour: '#17130f' },
  { key: 'anvil2', name: 'edge', role: 'light', colour: '#4b392a' },
];

interface Sheet {
  readonly name: string;
  readonly role: LayerRole;
  readonly locked?: boolean;
  /** Drawings in order with their holds; null is a stretch with nothing. */
  readonly runs: readonly { marks: Mark[] | null; hold: number }[];
  readonly period: number | null;
}

/** Builds the whole shot. The same on every call. */
export function furnaceMouth(): ShotDocument {
  const newId = seededIds(1101);
  const swatches = new Map(
    PALETTE.map(({ key, ...rest }): [string, Swatch] => [key, { kind: 'swatch', id: newId(), ...rest }]),
  );
  const swatch = (key: string) => swatches.get(key)!.id;
  const elementId = newId();
  const origin = { x: 960, y: 884 };

  const shape = (key: string, rings: readonly Float32Array[]): Mark[] =>
    rings.length > 0 ? [{ kind: 'shape', id: newId(), swatch: swatch(key), rings, rule: 'evenodd', opacity: 1 }] : [];
  const line = (rings: readonly Float32Array[], width: number): Mark[] =>
    rings.map((ring, i) => ({
      kind: 'stroke',
      id: newId(),
      swatch: swatch('line'),
      brush: { kind: 'ink', width, opacity: 1, pressure: true },
      seed: i,
      samples: lineAlong(ring),
    }));

  const phases = Array.from({ length: DRAWINGS }, (_, i) => fireAt(FURNACE_FIRE, i / DRAWINGS));
  const onTwos = (marks: Mark[][]) => marks.map((each) => ({ marks: each, hold: HOLD }));
  const licks = Array.from({ length: LICK.count }, (_, i) => {
    const rings = lickAt(FURNACE_FIRE, i / (LICK.count - 1));
    return [...shape('body', rings), ...line(rings, 8)];
  });
  const sheets: Sheet[] = [
    {
      name: 'Lick',
      role: 'body',
      runs: [
        { marks: null, hold: LICK.from * HOLD },
        ...onTwos(licks),
        { marks: null, hold: (DRAWINGS - LICK.from - LICK.count) * HOLD },
      ],
      period: null,
    },
    { name: 'Line', role: 'line', runs: onTwos(phases.map((p) => line(p.outline, 15))), period: null },
    { name: 'Core', role: 'tone', runs: onTwos(phases.map((p) => shape('core', p.core))), period: null },
    {
      name: 'Flame',
      role: 'body',
      runs: onTwos(phases.map((p) => [...shape('body', p.outline), ...shape('flame', p.body)])),
      period: null,
    },
    {
      name: 'Arch',
      role: 'texture',
      locked: true,
      runs: [{ marks: moved(hearthMarks(hearthSwatches(swatch), newId), -origin.x, -origin.y), hold: 1 }],
      period: 1,
    },
  ];

  const entities: Entity[] = [...swatches.values()];
  const layerIds = sheets.map((sheet) => {
    const { layer, list, drawings } = laid(sheet, elementId, newId);
    entities.push(layer, list, ...drawings);
    return layer.id;
  });
  const element: Element = {
    kind: 'element',
    id: elementId,
    name: 'Furnace fire',
    time: 'cycle',
    form: 'auto',
    layers: layerIds,
    ...NO_PLAN,
  };
  const placementId = newId();
  const planeId = newId();
  entities.push(
    element,
    { kind: 'placement', id: placementId, elementId, start: 0, repeats: null, ...origin },
    { kind: 'plane', id: planeId, name: 'Picture plane', depth: 0, placements: [placementId] },
    {
      kind: 'shot',
      id: FURNACE_MOUTH_ID,
      name: 'Furnace mouth',
      width: 1920,
      height: 1080,
      rate: 24,
      length: 72,
      background: '#0d0a09',
      planes: [planeId],
      elements: [elementId],
      swatches: [...swatches.values()].map((s) => s.id),
      guides: [],
    },
  );
  const doc = documentOf(FURNACE_MOUTH_ID, entities);
  shotOf(doc);
  return doc;
}

function hearthSwatches(swatch: (key: string) => string) {
  return {
    mortar: swatch('mortar'),
    bricks: [swatch('brick1'), swatch('brick2'), swatch('brick3'), swatch('brick4')],
    arch: swatch('arch'),
    archLit: swatch('arch2'),
    glow: [swatch('mouth'), swatch('mouth2'), swatch('mouth3'), swatch('mouth4')],
    anvil: swatch('anvil'),
    anvilTop: swatch('anvil2'),
  };
}

/** Shapes moved by an offset, px. */
function moved(marks: readonly Mark[], dx: number, dy: number): Mark[] {
  return marks.map((mark) =>
    mark.kind === 'shape'
      ? { ...mark, rings: mark.rings.map((ring) => ring.map((v, i) => v + (i % 2 === 0 ? dx : dy))) }
      : mark,
  );
}

function laid(sheet: Sheet, elementId: string, newId: NewId): { layer: Layer; list: RunList; drawings: Drawing[] } {
  const drawings: Drawing[] = [];
  const slots: Record<string, string> = {};
  const runs = sheet.runs.map(({ marks, hold }): Run => {
    if (!marks) return { id: newId(), slot: null, length: hold };
    const slot = newId();
    const drawing: Drawing = {
      kind: 'drawing',
      id: newId(),
      marks: Object.fromEntries(marks.map((m) => [m.id, m])),
      order: marks.map((m) => m.id),
    };
    drawings.push(drawing);
    slots[slot] = drawing.id;
    return { id: newId(), slot, length: hold };
  });
  const list: RunList = { kind: 'runlist', id: newId(), elementId, runs, period: sheet.period, offset: 0 };
  const layer: Layer = {
    kind: 'layer',
    id: newId(),
    elementId,
    name: sheet.name,
    role: sheet.role,
    visible: true,
    locked: sheet.locked ?? false,
    opacity: constant(1),
    blend: 'normal',
    onion: true,
    tag: 0,
    runListId: list.id,
    slots,
    starterId: null,
  };
  return { layer, list, drawings };
}
