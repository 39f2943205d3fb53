/** A small document that has every kind of entity with every field filled, for contracts over the kinds. */
import {
  AT_HOME,
  CAMERA_AT_REST,
  constant,
  documentOf,
  newGuide,
  newLayer,
  newPath,
  newPlacement,
  newShotDocument,
  shotOf,
  type Drawing,
  type Entity,
  type AppliedLook,
  type Id,
  type NewId,
  type ShotDocument,
  type Value,
  entitiesOf,
} from '../document/index.ts';

const column = (...values: number[]): Float32Array => Float32Array.from(values);
const RING = column(0, 0, 0, 0, 1, 0, 9, 0, 8, 0, 9, 1);
const samples = {
  x: column(1, 2),
  y: column(3, 4),
  pressure: column(0.5, 1),
  altitude: column(1, 1),
  azimuth: column(0, 2),
};
const brush = { kind: 'ink', width: 3, opacity: 1, pressure: true } as const;

/** A value with keys at frames 2 and 6. */
const moving = (from: number, to: number): Value => ({
  keys: [
    { frame: 2, value: from, ease: 'soft' },
    { frame: 6, value: to, ease: 'hold' },
  ],
});

function drawingWith(swatch: Id, newId: NewId): Drawing {
  const [a, b, c] = [newId(), newId(), newId()];
  return {
    kind: 'drawing',
    id: newId(),
    marks: {
      [a]: { kind: 'stroke', id: a, swatch, brush, seed: 1, samples, lays: 'behind', piece: 'lick' },
      [b]: { kind: 'rub', id: b, brush, seed: 2, samples },
      [c]: { kind: 'shape', id: c, swatch, rings: [RING], rule: 'nonzero', opacity: 0.5 },
    },
    order: [a, b, c],
  };
}

const glow = (swatch: Id, newId: NewId): AppliedLook => ({
  id: newId(),
  kind: 'glow',
  on: true,
  numbers: { radius: moving(10, 20), strength: constant(70), radii: constant(2), bright: constant(0) },
  choices: { blend: 'lighter' },
  swatch,
  seed: 3,
});

/** The document. It is the same for the same ids. */
export function everyKind(newId: NewId): ShotDocument {
  const start = newShotDocument(
    newId(),
    { name: 'All', width: 640, height: 360, rate: 24, length: 48, background: '#101010' },
    newId,
  );
  const shot = shotOf(start);
  const [first, second, third] = shot.swatches as [Id, Id, Id, ...Id[]];
  const bare = entitiesOf(start, 'element')[0]!;
  const elementId = bare.id;
  const line = newLayer(elementId, 'Line', 'line', newId);
  const body = newLayer(elementId, 'Body', 'body', newId);
  const drawings = [drawingWith(first, newId), drawingWith(second, newId)] as const;
  const [slotA, slotB] = [newId(), newId()];
  const path = { ...newPath(elementId, 'Way', RING, false, newId), placed: { 3: 0.5 } };
  const guide = newGuide(elementId, 'level', 'Floor', { x: 0, y: 1, toX: 5, toY: 1 }, newId);
  const everywhere = newGuide(null, 'grid', 'Grid', { x: 0, y: 1, toX: 5, toY: 1 }, newId);
  const print = '0123456789abcdef';
  const starterId = newId();
  const folderId = newId();
  const [heldList, heldDrawing] = [newId(), drawingWith(third, newId)];
  const runs = [
    { id: newId(), slot: slotA, length: 4 },
    { id: newId(), slot: slotB, length: 4 },
  ];
  const entities: Entity[] = [
    ...Object.values(start.entities),
    {
      ...shot,
      guides: [everywhere.id, guide.id],
      plates: [newId()],
      camera: {
        ...CAMERA_AT_REST,
        pathId: path.id,
        shakes: [{ id: newId(), from: 2, lasts: 6, amount: 9, turn: 0.01, frequency: 5, seed: 3 }],
      },
      focal: 700,
      air: { swatch: second, reach: 500 },
    },
    { ...line.list, runs, poses: { [slotA]: 'key' }, numbers: { [slotB]: 7 } },
    {
      ...line.layer,
      slots: { [slotA]: drawings[0].id, [slotB]: drawings[1].id },
      starterId,
      tint: second,
      opacity: moving(0.2, 1),
      shift: { ...AT_HOME, x: moving(0, 9) },
      finishes: [glow(first, newId)],
    },
    body.list,
    body.layer,
    {
      kind: 'folder',
      shift: { ...AT_HOME, x: moving(0, 4) },
      finishes: [glow(first, newId)],
      id: folderId,
      elementId,
      name: 'Both',
      visible: true,
      locked: false,
      opacity: moving(1, 0.5),
      layers: [line.layer.id],
    },
    ...drawings,
    heldDrawing,
    path,
    guide,
    everywhere,
    {
      ...bare,
      layers: [folderId, body.layer.id, ...bare.layers],
      light: moving(200, 240),
      tip: { x: 0, y: -90 },
      finishes: [glow(second, newId)],
      recolours: [{ id: newId(), name: 'Cold', map: { [first]: second } }],
      bases: [{ id: newId(), name: 'Left', x: 1, y: 2, notes: [{ id: newId(), move: 'sway', from: 1, length: 3 }] }],
      phases: [{ id: newId(), name: 'Rise', length: 8, hold: 2 }],
      mood: 'calm',
      paths: [path.id],
      traces: [{ id: newId(), layerId: line.layer.id, points: { [slotA]: { x: 1, y: 1, aim: false } } }],
    },
    {
      kind: 'starter',
      id: starterId,
      elementId,
      effect: 'fire',
      seed: 5,
      x: 1,
      y: 2,
      settings: { height: 200 },
      line: column(0, 0, 9, 0),
      pathId: path.id,
      from: 0,
      length: 8,
      hold: 2,
      layers: { body: line.layer.id },
      paints: { body: first },
      laid: { body: [{ drawingId: drawings[0].id, slot: slotA, print }] },
      along: print,
    },
    {
      kind: 'variant',
      id: newId(),
      elementId,
      name: 'Slower',
      scope: [line.layer.id],
      held: {
        lists: [{ ...line.list, id: heldList, runs: [{ id: newId(), slot: slotA, length: 6 }] }],
        layers: [{ layerId: line.layer.id, runListId: heldList, slots: { [slotA]: heldDrawing.id } }],
      },
    },
    {
      kind: 'between',
      id: newId(),
      elementId,
      layerId: line.layer.id,
      from: slotA,
      to: slotB,
      slots: [newId()],
      shares: [0.5],
      way: 'path',
      pathId: path.id,
      ties: [{ from: drawings[0].order[0]!, to: null }],
      laid: { [slotA]: print },
      hangsOn: [print, print],
      along: print,
    },
    {
      kind: 'fill',
      id: newId(),
      elementId,
      layerId: body.layer.id,
      bounds: [line.layer.id],
      gap: 6,
      under: 2,
      slots: { [slotA]: { hangsOn: print, regions: [{ markId: newId(), x: 1, y: 2, swatch: second, print }] } },
    },
    {
      kind: 'tone',
      id: newId(),
      elementId,
      bodyId: body.layer.id,
      details: [line.layer.id],
      depth: 40,
      shade: 0.5,
      light: 0.2,
      steps: 2,
      rim: 3,
      everywhere: true,
      layers: { shade: line.layer.id },
      swatches: { shade: third },
      laid: { [line.layer.id]: { [slotA]: print } },
      hangsOn: { [slotA]: print },
    },
    {
      kind: 'smear',
      id: newId(),
      elementId,
      layerId: line.layer.id,
      layers: [line.layer.id, body.layer.id],
      form: 'trail',
      stops: [slotA, slotB],
      piece: 'lick',
      marks: [drawings[1].order[0]!],
      rigid: [drawings[1].order[0]!],
      way: 'path',
      pathId: path.id,
      line: Float32Array.of(0, 0, 9, 9),
      bend: 0.2,
      guideId: guide.id,
      stopMarkId: null,
      settings: { length: 40 },
      seed: 3,
      time: 'behind',
      asGuide: false,
      slot: null,
      replaced: { slot: newId(), drawings: { [body.layer.id]: drawings[1].id } },
      behindId: body.layer.id,
      laid: { [body.layer.id]: { [slotA]: print } },
      hangsOn: print,
    },
    {
      kind: 'ride',
      id: newId(),
      elementId,
      layerId: body.layer.id,
      base: slotA,
      onElementId: elementId,
      useId: null,
      onUseId: newId(),
      traceId: newId(),
      turnId: newId(),
      slots: { [slotA]: slotA, [slotB]: slotB },
      laid: { [slotB]: print },
      hangsOn: print,
    },
  ];
  const doc = documentOf(start.shotId, entities);
  const plain = newPlacement(elementId, { start: 3, x: 4, y: 5 }, newId);
  const scatterId = newId();
  const used: Entity[] = [
    {
      ...plain,
      name: 'Again',
      layers: [line.layer.id],
      lasts: 40,
      before: 'first',
      phase: 2,
      speed: { over: 2, of: 3 },
      shift: { ...AT_HOME, angle: moving(0, 1) },
      anchor: { x: 1, y: 2 },
      corners: {
        box: { left: 0, top: 0, right: 9, bottom: 9 },
        at: [
          { x: 0, y: 0 },
          { x: 9, y: 1 },
          { x: 8, y: 7 },
          { x: 1, y: 9 },
        ],
      },
      way: { pathId: path.id, turned: true },
      seat: { onElementId: elementId, onUseId: null, traceId: newId(), turnId: null },
      opacity: moving(0.5, 1),
      tint: second,
      finishes: [glow(first, newId)],
      cut: { by: plain.id, within: false, passed: true },
      scatterId,
    },
    {
      kind: 'scatter',
      id: scatterId,
      sourceId: plain.id,
      count: 3,
      seed: 4,
      over: 12,
      region: RING,
      pathId: path.id,
      reach: 100,
      size: { least: 0.5, most: 1 },
      turn: { least: -1, most: 1 },
      speed: { least: 1, most: 2 },
      mirrored: 0.5,
      copies: { [plain.id]: print },
    },
  ];
  const plate: Entity = {
    kind: 'plate',
    id: shotOf(doc).plates[0]!,
    name: 'Room',
    assets: ['a'.repeat(64)],
    width: 640,
    height: 360,
    x: 320,
    y: 180,
    scale: 1,
    angle: 0,
    corners: [
      { x: 0, y: 0 },
      { x: 640, y: 20 },
      { x: 620, y: 340 },
      { x: 10, y: 360 },
    ],
    opacity: 0.5,
    guide: true,
    beside: false,
    visible: true,
    locked: false,
    cut: { by: plain.id, within: true, passed: true },
    span: { from: 0, length: 12 },
  };
  const plane = entitiesOf(start, 'plane')[0]!;
  const onPlane: Entity = {
    ...plane,
    depth: 40,
    finishes: [glow(second, newId)],
    placements: [...plane.placements, plain.id],
  };
  const light: Entity = {
    kind: 'light',
    id: newId(),
    name: 'From the door',
    sourceId: plain.id,
    planeId: plane.id,
    at: 'middle',
    x: moving(0, 4),
    y: moving(1, 2),
    swatch: second,
    radius: moving(90, 120),
    strength: moving(0.5, 1),
    dies: 2,
    follows: 0.5,
    smooth: 2,
    reach: 400,
    side: 0.25,
    blend: 'add',
    fallsOn: { planes: [plane.id], placements: [plain.id], plates: [plate.id] },
    visible: true,
  };
  const sound: Entity = {
    kind: 'sound',
    id: newId(),
    name: 'Roar',
    asset: 'b'.repeat(64),
    seconds: 6,
    start: 2.5,
    part: { from: 0.5, to: 4 },
    fadeIn: 0.1,
    fadeOut: 0.5,
    loudness: 0.8,
    hits: 0.5,
    heard: true,
  };
  const graded = doc.entities[third]!;
  const gradient = {
    form: 'linear',
    run: 'axis',
    from: { x: 0, y: 0 },
    to: { x: 0, y: 1 },
    stops: [
      { at: 0, swatch: first },
      { at: 1, swatch: second },
    ],
  } as const;
  return documentOf(doc.shotId, [
    ...Object.values(doc.entities),
    ...used,
    onPlane,
    plate,
    light,
    sound,
    { ...shotOf(doc), lights: [light.id], sounds: [sound.id] },
    ...(graded.kind === 'swatch' ? [{ ...graded, gradient }] : []),
  ]);
}
