/**
 * What every edit promises: it is pure, undo brings back the very same, and what it leaves is valid and points at nothing
 * that is gone. A function that is new in `edit/` has to be entered here, as an edit or as one that only asks.
 */
import {
  keysIn,
  applyStep,
  encodeEntity,
  entitiesOf,
  findAll,
  find,
  newPath,
  putEntities,
  readEntity,
  referencesOf,
  reversed,
  shotOf,
  touchedBetween,
  type Id,
  type ShotDocument,
} from '../document/index.ts';
import * as edit from '../edit/index.ts';
import { discRing, polygonRing, seededIds } from '../geometry/index.ts';
import { newStarter, starterHolds, starterOf } from '../starters/index.ts';
import { everyKind } from './every-kind.ts';

const newId = seededIds(61);
const world = everyKind(seededIds(60));
const shot = shotOf(world);
const element = entitiesOf(world, 'element')[0]!;
const [line, body] = ['Line', 'Body'].map((name) => entitiesOf(world, 'layer').findLast((l) => l.name === name)!) as [
  ReturnType<typeof entitiesOf<'layer'>>[0],
  ReturnType<typeof entitiesOf<'layer'>>[0],
];
const folder = entitiesOf(world, 'folder')[0]!;
const [first, second] = shot.swatches as [Id, Id];
const drawing = find(world, 'drawing', Object.values(line.slots)[0])!;
const sets = { [drawing.id]: drawing.order };
const path = entitiesOf(world, 'path')[0]!;
const guide = findAll(world, 'guide', shot.guides)[0]!;
const plate = entitiesOf(world, 'plate')[0]!;
const starter = entitiesOf(world, 'starter')[0]!;
const between = entitiesOf(world, 'between')[0]!;
const tone = entitiesOf(world, 'tone')[0]!;
const fill = entitiesOf(world, 'fill')[0]!;
const smear = entitiesOf(world, 'smear')[0]!;
const variant = entitiesOf(world, 'variant')[0]!;
const plane = entitiesOf(world, 'plane')[0]!;
const use = entitiesOf(world, 'placement')[0]!;
const light = entitiesOf(world, 'light')[0]!;
const sound = entitiesOf(world, 'sound')[0]!;
const look = line.finishes[0]!;
const recolour = element.recolours[0]!;
const selected = { first: 0, count: 1 };
const ring = polygonRing([
  [0, 0],
  [40, 0],
  [40, 40],
  [0, 40],
]);
const mark = () => ({ kind: 'shape', id: newId(), swatch: first, rings: [ring], rule: 'evenodd', opacity: 1 }) as const;
const own = { marks: drawing.marks, order: drawing.order };
const blank = () => edit.addLayer(world, element.id, 'Blank', 'line', null, newId);

const traced = newId();
/** The world with marks that ride on a point of two drawings. */
function ridden(): [ShotDocument] {
  const points = Object.keys(line.slots).reduce(
    (doc, slot, i) => edit.putTracePoint(doc, line.id, traced, slot, { x: i * 10, y: 1 }, false),
    world,
  );
  const asked = {
    layerId: line.id,
    frame: 0,
    marks: drawing.order,
    onElementId: element.id,
    traceId: traced,
    turnId: null,
  };
  return [edit.layRide(points, asked, newId).doc];
}

const ENTRY = { kind: 'drawings', numbers: [1], hold: null } as const;

/** An element of its own with two plain layers that are drawn on: looks, tints and mattes cannot be joined. */
function plainPair() {
  const { doc, elementId } = edit.addElement(world, 'Plain', 0, newId);
  const upper = find(doc, 'element', elementId)!.layers[0]!;
  const made = edit.addLayer(doc, elementId, 'Under', 'body', null, newId);
  const drawn = [upper, made.layerId].reduce((now, id) => edit.addMark(now, id, 0, mark(), newId), made.doc);
  return { doc: drawn, elementId, upper, lower: made.layerId };
}

/** An edit of the world; one that needs more than the world has brings its own document. */
type Run = () => ShotDocument | readonly [before: ShotDocument, after: ShotDocument];
const docOf = ({ doc }: { readonly doc: ShotDocument }): ShotDocument => doc;

const EDITS: Readonly<Record<string, Run>> = {
  // Time and drawings.
  newDrawing: () => docOf(edit.newDrawing(world, line.id, 2, newId)),
  newDrawingBefore: () => docOf(edit.newDrawingBefore(world, line.id, 1, newId)),
  insertBlank: () => docOf(edit.insertBlank(world, line.id, 2, newId)),
  copyDrawing: () => docOf(edit.copyDrawing(world, line.id, 2, newId)),
  insertClip: () => docOf(edit.insertClip(world, line.id, 1, edit.clipOf(world, line.id, [0, 1]), newId)),
  pasteClip: () => docOf(edit.pasteClip(world, line.id, 0, edit.clipOf(world, line.id, [0]), newId)),
  breakHold: () => docOf(edit.breakHold(world, line.id, 2, newId)),
  moveToNewDrawing: () => docOf(edit.moveToNewDrawing(world, line.id, 0, 1, newId)),
  deleteRuns: () => docOf(edit.deleteRuns(world, line.id, [0], 'close up')),
  deleteExposure: () => docOf(edit.deleteExposure(world, line.id, 4)),
  holdFor: () => docOf(edit.holdFor(world, line.id, 0, 6)),
  layerOn: () => docOf(edit.layerOn(world, line.id, 0, 2)),
  moveSelectedRuns: () => docOf(edit.moveSelectedRuns(world, line.id, selected, 2)),
  stretchSelectedRuns: () => docOf(edit.stretchSelectedRuns(world, line.id, selected, 6)),
  rollStart: () => docOf(edit.rollStart(world, line.id, 1, 1)),
  rollEnd: () => docOf(edit.rollEnd(world, line.id, 0, 1)),
  shiftPhase: () => edit.shiftPhase(world, line.id, 1, newId),
  setStill: () => edit.setStill(world, line.id, true, 0),
  changeStretch: () =>
    docOf(edit.changeStretch(world, { layerIds: [line.id], from: 0, length: 8 }, (runs) => [...runs].reverse(), newId)),
  splitHere: () => docOf(edit.splitHere(world, line.id, 1, newId)),
  swapRuns: () => docOf(edit.swapRuns(world, line.id, 0, 1)),
  makeOwn: () => {
    const list = find(world, 'runlist', line.runListId)!;
    const again = { ...list.runs[0]!, id: newId() };
    const twice = putEntities(world, { ...list, runs: [...list.runs, again] });
    return [twice, docOf(edit.makeOwn(twice, line.id, 8, newId))];
  },
  typeInto: () => docOf(edit.typeInto(world, line.id, 4, null, ENTRY, newId)),
  bringBack: () => edit.bringBack(edit.deleteLayer(world, line.id), edit.takeParts(world, [line.elementId])),
  numberAnew: () => edit.numberAnew(world, line.id),
  heal: () => {
    const bare = putEntities(world, { ...shot, swatches: [] });
    return [bare, docOf(edit.heal(bare))];
  },
  writeSheet: () => edit.writeSheet(world, line.id, [2, 2, null, 1, 7], newId),
  layScans: () =>
    edit.layScans(
      world,
      element.id,
      [[{ opacity: 0.4, rings: [discRing(4, 4, 3)] }], []],
      { name: 'Scans', hold: 2 },
      newId,
    ).doc,
  addBrought: () =>
    docOf(
      edit.addBrought(
        world,
        'Sign',
        {
          width: 8,
          height: 8,
          layers: [
            {
              name: 'A',
              marks: [{ kind: 'shape', rings: [discRing(4, 4, 3)], rule: 'nonzero', opacity: 1, colour: '#010203' }],
            },
          ],
        },
        3,
        newId,
      ),
    ),
  startAt: () => edit.startAt(world, element.id, 4),
  turnRound: () => edit.turnRound(world, element.id),
  resizeTime: () => edit.resizeTime(world, element.id, 12),
  cutCycle: () => edit.cutCycle(world, element.id, 0, 4, newId),
  setPose: () => edit.setPose(world, line.id, [1], 'breakdown'),
  layBoil: () => docOf(edit.layBoil(world, line.id, 0, [own], 1, newId)),
  setRepeat: () => edit.setRepeat(world, line.id, 4),
  tieLayer: () => {
    const { doc, layerId } = blank();
    return [doc, edit.tieLayer(doc, layerId, line.id)];
  },
  untieLayer: () => {
    const { doc, layerId } = edit.lineOver(world, line.id, 'Over', 'line', newId);
    return [doc, edit.untieLayer(doc, layerId, newId)];
  },
  lineOver: () => docOf(edit.lineOver(world, line.id, 'Over', 'line', newId)),
  prepareSlots: () => {
    const { doc, layerId } = blank();
    return [doc, edit.prepareSlots(doc, layerId, 8, 2, newId)];
  },
  slotsOf: () => {
    const { doc, layerId } = blank();
    return [doc, edit.slotsOf(doc, layerId, line.id, newId)];
  },
  putTracePoint: () => edit.putTracePoint(world, line.id, newId(), Object.keys(line.slots)[0]!, { x: 1, y: 2 }, false),
  setPlateCorners: () =>
    edit.setPlateCorners(world, plate.id, [
      { x: 0, y: 0 },
      { x: 600, y: 10 },
      { x: 630, y: 300 },
      { x: 0, y: 350 },
    ]),
  addPlatePoints: () => docOf(edit.addPlatePoints(world, element.id, 4, newId)),
  dropTrace: () => edit.dropTrace(world, element.id, element.traces[0]!.id),
  setValue: () => edit.setValue(world, line.id, 'opacity', 3, 0.4),
  setKey: () => edit.setKey(world, line.id, 'opacity', 3, null),
  dropKey: () => edit.dropKey(world, line.id, 'opacity', 2),
  keepVariant: () => edit.keepVariant(world, element.id, [line.id], newId),
  showVariant: () => {
    const kept = edit.keepVariant(world, element.id, [line.id], newId);
    const made = entitiesOf(kept, 'variant').find(({ id }) => id !== variant.id)!;
    const slower = docOf(edit.holdFor(kept, line.id, 0, 9));
    return [slower, edit.showVariant(slower, made.id)];
  },
  dropVariant: () => edit.dropVariant(world, variant.id),
  nameVariant: () => edit.nameVariant(world, variant.id, 'Faster'),
  // Marks.
  addMarks: () => edit.addMarks(world, line.id, 0, [mark()], newId),
  addMark: () => edit.addMark(world, line.id, 0, mark(), newId),
  landMarks: () => edit.landMarks(world, { layerId: line.id, drawingId: drawing.id, frame: 0 }, [mark()], newId),
  changeMarks: () => edit.changeMarks(world, sets, (each) => (each.kind === 'rub' ? each : { ...each, piece: 'drop' })),
  replaceMarks: () => edit.replaceMarks(world, sets, (each) => [each, { ...each, id: newId() }]),
  deleteMarks: () => edit.deleteMarks(world, sets),
  renewBrushes: () => {
    const pencil = (version?: number) =>
      ({ kind: 'pencil', ...(version ? { version } : {}), width: 6, opacity: 1, pressure: true }) as const;
    const older = edit.changeMarks(world, sets, (each) =>
      each.kind === 'shape' ? each : { ...each, brush: pencil() },
    );
    return edit.renewBrushes(older, sets);
  },
  carryOn: () => edit.carryOn(world, line.id, [mark()], [0], newId),
  orderMarks: () => edit.orderMarks(world, { [drawing.id]: [drawing.order[0]!] }, 'top'),
  duplicateMarks: () => docOf(edit.duplicateMarks(world, sets, newId)),
  joinMarks: () => edit.joinMarks(world, sets, 'straight'),
  // Layers and elements.
  addLayer: () => docOf(blank()),
  addStill: () => docOf(edit.addStill(world, element.id, 'Still', 'behind', newId)),
  deleteLayer: () => edit.deleteLayer(world, body.id),
  moveLayer: () => edit.moveLayer(world, body.id, folder.id, 0),
  setLayer: () => edit.setLayer(world, line.id, { name: 'Other', opacity: 0.3 }),
  addFolder: () => docOf(edit.addFolder(world, element.id, 'New', [body.id], newId)),
  dissolveFolder: () => edit.dissolveFolder(world, folder.id),
  setFolder: () => edit.setFolder(world, folder.id, { name: 'Other', opacity: 0.3 }),
  lockOthers: () => docOf(edit.lockOthers(world, element.id, line.id)),
  joinLayers: () => {
    const { doc, upper, lower } = plainPair();
    return [doc, docOf(edit.joinLayers(doc, upper, lower, { upper: true, lower: false }, newId))];
  },
  joinSeen: () => {
    const { doc, elementId } = plainPair();
    return [doc, docOf(edit.joinSeen(doc, elementId, true, newId))];
  },
  joinDrawing: () => {
    const { doc, upper, lower } = plainPair();
    const joined = edit.joinDrawing(doc, upper, lower, 0, newId);
    return [doc, typeof joined === 'string' ? doc : joined];
  },
  fitAxis: () => {
    const { doc, elementId } = edit.addElement(world, 'Plain', 0, newId);
    return edit.fitAxis(doc, elementId, { left: -20, top: -80, right: 40, bottom: 10 });
  },
  setElement: () => edit.setElement(world, element.id, { name: 'Other', time: 'one-shot' }),
  addElement: () => docOf(edit.addElement(world, 'Second', 4, newId)),
  restyle: () => edit.restyle(world, sets, { swatch: second, width: 33 }),
  movedAlong: () =>
    edit.movedAlong(
      world,
      edit.changeMarks(world, sets, (m) => ({ ...m })),
      new Set([drawing.id]),
    ),
  pasteParts: () => docOf(edit.pasteParts(world, edit.takeParts(world, [folder.id]), line.id, newId)),
  copyParts: () => docOf(edit.copyParts(world, [element.id], newId)),
  deleteElement: () => {
    const { doc } = edit.addElement(world, 'Second', 4, newId);
    return [doc, edit.deleteElement(doc, element.id)];
  },
  raisePlacement: () => {
    const { doc } = edit.placeElement(world, element.id, { planeId: plane.id }, { start: 1, x: 2, y: 3 }, newId);
    return [doc, edit.raisePlacement(doc, use.id, -1)];
  },
  setPlacements: () => edit.setPlacements(world, [use.id], { mirror: true, phase: 2 }),
  placeElement: () =>
    docOf(edit.placeElement(world, element.id, { planeId: plane.id }, { start: 1, x: 2, y: 3 }, newId)),
  copyPlacement: () => docOf(edit.copyPlacement(world, use.id, { start: 8 }, newId)),
  movePlacement: () => {
    const { doc, planeId } = edit.addPlane(world, 'Front', null, newId);
    return [doc, edit.movePlacement(doc, use.id, { planeId })];
  },
  removePlacements: () => edit.removePlacements(world, [use.id]),
  splitPlacement: () => docOf(edit.splitPlacement(world, use.id, use.start + 2, newId)),
  trimStart: () => edit.trimStart(world, use.id, use.start + 2),
  trimEnd: () => edit.trimEnd(world, use.id, use.start + 3),
  makeUseOwn: () => edit.makeUseOwn(world, use.id, newId),
  movePlaces: () =>
    edit.movePlaces(world, [use.id], 4, { about: { x: 1, y: 2 }, dx: 3, dy: 4, scale: 1.5, angle: 0.2 }),
  setPlaceAnchor: () => edit.setPlaceAnchor(world, use.id, 4, { x: 9, y: 8 }),
  setCorners: () =>
    edit.setCorners(world, use.id, 4, { left: 0, top: 0, right: 90, bottom: 60 }, [
      { x: 0, y: 0 },
      { x: 90, y: 10 },
      { x: 80, y: 60 },
      { x: 5, y: 55 },
    ]),
  addPlane: () => docOf(edit.addPlane(world, 'Front', null, newId)),
  setPlane: () => edit.setPlane(world, plane.id, { name: 'Here', locked: true }),
  setPlaneDepth: () => edit.setPlaneDepth(world, plane.id, 4),
  setCamera: () => edit.setCamera(world, 'x', 3, 40),
  setCameraKey: () => edit.setCameraKey(world, 'zoom', 3, 'soft'),
  dropCameraKey: () => {
    const keyed = edit.setCameraKey(world, 'angle', 3, 'soft');
    return [keyed, edit.dropCameraKey(keyed, 'angle', 3)];
  },
  setCameraPath: () => edit.setCameraPath(world, entitiesOf(world, 'path')[0]!.id),
  addShake: () => docOf(edit.addShake(world, 3, 7, newId)),
  setShake: () => {
    const { doc, shakeId } = edit.addShake(world, 3, 7, newId);
    return [doc, edit.setShake(doc, shakeId, { amount: 5000, lasts: 3.4 })];
  },
  removeShake: () => {
    const { doc, shakeId } = edit.addShake(world, 3, 7, newId);
    return [doc, edit.removeShake(doc, shakeId)];
  },
  setDepthOfShot: () =>
    edit.setDepthOfShot(world, { focal: 900, air: { swatch: shotOf(world).swatches[0]!, reach: 800 } }),
  movePlane: () => {
    const { doc, planeId } = edit.addPlane(world, 'Front', null, newId);
    return [doc, edit.movePlane(doc, planeId, 1)];
  },
  removePlane: () => {
    const { doc, planeId } = edit.addPlane(world, 'Front', null, newId);
    return [doc, edit.removePlane(doc, planeId)];
  },
  addLightOf: () => docOf(edit.addLightOf(world, use.id, newId)),
  addLightOn: () => docOf(edit.addLightOn(world, plane.id, { x: 3, y: 4 }, newId)),
  setLight: () => edit.setLight(world, light.id, { dies: 90, smooth: 3.4, blend: 'screen' }),
  setLightValue: () => edit.setLightValue(world, light.id, 'radius', 3, 700),
  setLightKey: () => edit.setLightKey(world, light.id, 'strength', 2, null, 'soft'),
  dropLightKey: () => {
    const keyed = edit.setLightKey(world, light.id, 'x', 2, null, 'soft');
    return [keyed, edit.dropLightKey(keyed, light.id, 'x', 2)];
  },
  addSound: () => docOf(edit.addSound(world, { name: 'Strike', asset: 'c'.repeat(64), seconds: 3 }, 7, newId)),
  setSound: () => edit.setSound(world, sound.id, { loudness: 99, fadeIn: 50, hits: 2, start: 4.25 }),
  trimSoundStart: () => edit.trimSoundStart(world, sound.id, 10),
  trimSoundEnd: () => edit.trimSoundEnd(world, sound.id, 30),
  copySound: () => docOf(edit.copySound(world, sound.id, 40, newId)),
  removeSound: () => edit.removeSound(world, sound.id),
  setFallsOn: () =>
    edit.setFallsOn(world, light.id, 'planes', plane.id, false, { planes: [], placements: [], plates: [] }),
  layWash: () => edit.layWash(world, use.id, [0, 0.5, 0], shotOf(world).swatches[0]!, 60, newId),
  moveKey: () => {
    const [moving] = edit.changingValues(world);
    return edit.moveKey(world, moving!, keysIn(moving!.value)[0]!, 900, 3);
  },
  easeKey: () => {
    const [moving] = edit.changingValues(world);
    return edit.easeKey(world, moving!, keysIn(moving!.value)[0]!, 'hold');
  },
  takeKey: () => {
    const [moving] = edit.changingValues(world);
    return edit.takeKey(world, moving!, keysIn(moving!.value)[0]!.frame);
  },
  removeLight: () => edit.removeLight(world, light.id),
  layPlate: () => edit.layPlate(world, plate.id, { planeId: plane.id, end: 'front' }),
  copyIntoDepth: () => {
    const { doc, planeId } = edit.addPlane(world, 'Front', null, newId);
    const behind = edit.setPlaneDepth(doc, planeId, 500);
    return [behind, docOf(edit.copyIntoDepth(behind, use.id, newId))];
  },
  layScatter: () => docOf(edit.layScatter(world, use.id, edit.newScattering(90), newId)),
  relayScatter: () => {
    const { doc, scatterId } = edit.layScatter(world, use.id, edit.newScattering(90), newId);
    return [doc, edit.relayScatter(doc, scatterId, { seed: 9, count: 5 }, newId)];
  },
  takeScatter: () => {
    const { doc, scatterId } = edit.layScatter(world, use.id, edit.newScattering(90), newId);
    return [doc, edit.takeScatter(doc, scatterId)];
  },
  setStart: () => edit.setStart(world, entitiesOf(world, 'placement')[0]!.id, 5),
  addLook: () => edit.addLook(world, body.id, { ...look, id: newId() }),
  setLook: () => edit.setLook(world, line.id, look.id, { on: false }),
  setLookNumber: () => edit.setLookNumber(world, line.id, look.id, 'radius', 0, 33),
  keyLookNumber: () => edit.keyLookNumber(world, line.id, look.id, 'radius', 4, null),
  moveLook: () => {
    const two = edit.addLook(world, line.id, { ...look, id: newId() });
    return [two, edit.moveLook(two, line.id, look.id, 1)];
  },
  dropLook: () => edit.dropLook(world, line.id, look.id),
  copyLooks: () => edit.copyLooks(world, [look], body.id, newId),
  // The shot, its palette, plates and plan.
  setShot: () => edit.setShot(world, { name: 'Other', length: 30 }),
  resizeShot: () => edit.resizeShot(world, { width: 800, height: 600 }),
  addSwatch: () => docOf(edit.addSwatch(world, { name: 'New', role: 'light', colour: '#ff8800' }, newId)),
  addSwatches: () =>
    edit.addSwatches(world, [{ name: 'New', role: 'light', colour: '#ff8800', gradient: null }], newId),
  setSwatch: () => edit.setSwatch(world, first, { colour: '#123456' }),
  moveSwatch: () => edit.moveSwatch(world, first, 2),
  replaceSwatch: () => edit.replaceSwatch(world, first, second),
  mergeSwatch: () => edit.mergeSwatch(world, first, second),
  removeSwatches: () => {
    const { doc, swatchId } = edit.addSwatch(world, { name: 'New', role: 'light', colour: '#ff8800' }, newId);
    return [doc, edit.removeSwatches(doc, [swatchId])];
  },
  addRecolour: () => docOf(edit.addRecolour(world, element.id, 'Hot', { [first]: second }, newId)),
  setRecolour: () => edit.setRecolour(world, element.id, recolour.id, { name: 'Colder', from: second, to: first }),
  seeRecolour: () => edit.seeRecolour(world, element.id, recolour.id),
  dropRecolour: () => edit.dropRecolour(world, element.id, recolour.id),
  addPlate: () => docOf(edit.addPlate(world, { name: 'Room', assets: ['b'.repeat(64)], width: 9, height: 9 }, newId)),
  setPlate: () => edit.setPlate(world, plate.id, { opacity: 0.2 }),
  deletePlate: () => edit.deletePlate(world, plate.id),
  addPath: () => docOf(edit.addPath(world, element.id, { nodes: path.nodes, closed: false }, 2, newId)),
  setPath: () => edit.setPath(world, path.id, { ticks: 9 }),
  deletePath: () => edit.deletePath(world, path.id),
  joinPaths: () => {
    const { doc, pathId } = edit.addPath(world, element.id, { nodes: path.nodes, closed: false }, 2, newId);
    return [doc, edit.joinPaths(doc, path.id, pathId)];
  },
  cutPath: () => {
    const nodes = Float32Array.from([0, 20, 40].flatMap((x) => [x, x, x, x, x, x]));
    const three = newPath(element.id, 'Three', nodes, false, newId);
    const { doc, pathId } = edit.addPath(world, element.id, three, 0, newId);
    return [doc, edit.cutPath(doc, pathId, 1, newId)];
  },
  addGuide: () => docOf(edit.addGuide(world, element.id, 'plumb', { x: 1, y: 2, toX: 3, toY: 4 }, newId)),
  setGuide: () => edit.setGuide(world, guide.id, { name: 'Other' }),
  deleteGuide: () => edit.deleteGuide(world, guide.id),
  setPlan: () => edit.setPlan(world, element.id, { anchor: { x: 9, y: 9 }, phases: [] }),
  stampPath: () => docOf(edit.stampPath(world, path.id, first, 1, newId)),
  revealDrawing: () =>
    docOf(edit.revealDrawing(world, element.id, drawing.id, { comes: 3, goes: 2, overlap: 1 }, 0, 2, newId)),
  addSketch: () => docOf(edit.addSketch(world, element.id, newId)),
  // What is computed.
  laySmear: () => {
    const place = edit.smearPlace(world, line.id, 1)!;
    const plan = edit.newSmear(place, edit.subjectLayers(world, line.id), 'copies', {});
    const smeared = { own: new Map([[line.id, [mark()]]]), behind: [[mark()]] };
    return docOf(edit.laySmear(world, plan, smeared, place.replaces, newId));
  },
  relaySmear: () => {
    const smeared = { own: new Map(), behind: [[mark()]] };
    return docOf(edit.relaySmear(world, smear.id, { seed: 4 }, smeared, newId)!);
  },
  layRide: () => {
    const before = edit.putTracePoint(world, line.id, traced, Object.keys(line.slots)[0]!, { x: 1, y: 1 }, false);
    const asked = {
      layerId: line.id,
      frame: 0,
      marks: drawing.order,
      onElementId: element.id,
      traceId: traced,
      turnId: null,
    };
    return [before, edit.layRide(before, asked, newId).doc];
  },
  relayRide: () => {
    const [before] = ridden();
    const slots = { ...find(before, 'layer', line.id)!.slots };
    const moved = edit.putTracePoint(before, line.id, traced, Object.keys(slots)[1]!, { x: 40, y: 1 }, false);
    return [moved, edit.relayRide(moved, entitiesOf(moved, 'ride').at(-1)!.id, newId)];
  },
  setRide: () => {
    const [before] = ridden();
    return [before, edit.setRide(before, entitiesOf(before, 'ride').at(-1)!.id, { turnId: newId() }, newId)];
  },
  freeRide: () => edit.freeRide(world, entitiesOf(world, 'ride')[0]!.id),
  putArrival: () =>
    docOf(edit.putArrival(world, line.id, Object.keys(line.slots)[1]!, new Map([[line.id, [mark()]]]), newId)),
  layContactWays: () => {
    const gap = edit.gapAt(world, line.id, 0)!;
    const plan = {
      layerId: line.id,
      from: gap.from,
      to: gap.to,
      shares: [0.5],
      way: 'arc',
      pathId: null,
      ties: [],
    } as const;
    const work = edit.betweenWork(world, plan, false)!;
    const place = edit.smearPlace(world, line.id, 1)!;
    const smeared = { own: new Map([[line.id, [mark()]]]), behind: [] };
    const stretch = { plan: edit.newSmear(place, [line.id], 'stretch', {}), smeared, replaces: null };
    return edit.layContactWays(world, line.id, 0, { between: { plan, drawing: own, work }, stretch }, newId);
  },
  cutHeld: () => {
    const { doc } = edit.holdFor(world, line.id, 0, 4);
    return [doc, edit.cutHeld(doc, line.id, 2, newId)];
  },
  takeSmear: () => edit.takeSmear(world, smear.id),
  freeSmear: () => edit.freeSmear(world, smear.id),
  tonedBetween: () => {
    const gap = edit.gapAt(world, line.id, 0)!;
    const laid = { ...tone, everywhere: false, hangsOn: { [gap.from]: 'a', [gap.to]: 'b' } };
    const before = putEntities(world, laid);
    return [before, edit.tonedBetween(before, new Set([tone.bodyId]), gap, [newId()])];
  },
  layBetweens: () => {
    const gap = edit.gapAt(world, line.id, 0)!;
    const work = { from: drawing, to: drawing, path: null };
    const plan = {
      layerId: line.id,
      from: gap.from,
      to: gap.to,
      shares: [0.5],
      way: 'arc',
      pathId: null,
      ties: [],
    } as const;
    return docOf(edit.layBetweens(world, gap, plan, [own], work, 'insert', newId));
  },
  relayBetween: () =>
    edit.relayBetween(world, between.id, { shares: [0.2] }, [own], { from: drawing, to: drawing, path: null }),
  takeBetween: () => edit.takeBetween(world, between.id),
  freeBetween: () => edit.freeBetween(world, between.id),
  withFillLayer: () => {
    const { doc } = edit.lineOver(world, line.id, 'Over', 'line', newId);
    return [doc, docOf(edit.withFillLayer(doc, line.id, newId))];
  },
  layFills: () =>
    edit.layFills(world, fill, 0, [{ rings: [ring], seed: { x: 9, y: 9 }, swatch: first }], '0123456789abcdef', newId),
  unfill: () => {
    const filled = edit.addMark(world, line.id, 0, mark(), newId);
    return [filled, edit.unfill(filled, line.id, 0, { x: 20, y: 20 }, [])];
  },
  repaint: () => {
    const filled = edit.addMark(world, line.id, 0, mark(), newId);
    return [filled, edit.repaint(filled, line.id, 0, { x: 20, y: 20 }, second)];
  },
  relayFills: () => {
    const shape = { rings: [ring], seed: { x: 9, y: 9 }, swatch: first };
    const laid = edit.layFills(world, { ...fill, layerId: line.id }, 0, [shape], '0123456789abcdef', newId);
    const now = entitiesOf(laid, 'fill').find(({ layerId }) => layerId === line.id)!;
    const [slot, { regions }] = Object.entries(now.slots)[0]!;
    const moved = { ...shape, rings: [ring.map((v) => v + 1)] };
    return [laid, edit.relayFills(laid, { fill: now, slot, frame: 0 }, regions, [moved], 'fedcba9876543210')];
  },
  layTone: () => {
    const cut = { slot: Object.keys(line.slots)[0]!, print: '0123456789abcdef', shapes: { light: [ring] } };
    return edit.layTone(world, tone, [cut], newId);
  },
  layStarter: () => {
    const kind = starterOf('fire');
    const fresh = newStarter(element, 'fire', kind.presets[0]!, 3, newId);
    const frames = starterHolds(world, fresh).map(() => ({ body: [{ paint: kind.paints[0]!.key, rings: [ring] }] }));
    return edit.layStarter(world, fresh, frames, newId);
  },
  deleteStarter: () => edit.deleteStarter(world, starter.id),
  releaseStarter: () => edit.releaseStarter(world, starter.id),
  // What others are made of.
  deleteEntities: () => edit.deleteEntities(world, [path.id, body.id]),
  rescueDrawing: () => {
    const lost = { ...drawing, id: newId() };
    return [putEntities(world, lost), edit.rescueDrawing(putEntities(world, lost), lost)];
  },
};

/** Functions that ask, or make something that is put in by others. */
const ASKING = new Set([
  'carriedTo',
  'isOlder',
  'nextToClean',
  'restyled',
  'roughFor',
  'toClean',
  'adoptPending',
  'bareGroups',
  'bareRuns',
  'betweenAtFrame',
  'betweenWork',
  'rideOfLayer',
  'whyNotRide',
  'tiedBetweens',
  'smearsOf',
  'movesHeld',
  'movedBy',
  'anchorPlace',
  'whyNotInside',
  'whyNotRemovePlane',
  'whyNotIntoDepth',
  'whyNotLight',
  'changingValues',
  'contactsOf',
  'washOver',
  'cutOfPlacement',
  'newScattering',
  'rational',
  'scattered',
  'touchedCopies',
  'smearPlace',
  'smearWork',
  'newSmear',
  'subjectLayers',
  'roomAfter',
  'tiedBetweenDrawings',
  'betweensOf',
  'boilRoom',
  'boundsAt',
  'cellAt',
  'clipOf',
  'computedSlots',
  'copiesOf',
  'crossesSeam',
  'drawingBefore',
  'drawingsOfScope',
  'fillOfLayer',
  'fillPlace',
  'fitsWithin',
  'framesLeft',
  'gapAt',
  'indicesOf',
  'isSelected',
  'isUsed',
  'keyedFrames',
  'layerScope',
  'listOf',
  'middleFrame',
  'namedPiece',
  'newLook',
  'newTone',
  'nextBare',
  'readEntry',
  'refillable',
  'shortestLength',
  'shownTimes',
  'slotsFrom',
  'spanOf',
  'staleFills',
  'startersOf',
  'swatchesOn',
  'tiedTo',
  'toneAbout',
  'toneSlots',
  'touchedSlots',
  'traceTicks',
  'unusedSwatches',
  'swatchesOf',
  'usesOf',
  'defaultRepeat',
  'valueOf',
  'variantsAbout',
  'variantsOf',
  'wholeScope',
  'whyNotDrawable',
  'whyNotJoined',
  'whyNotSlotsOf',
  'isByTone',
  'isLaidByItself',
  'tonesOf',
  'takeParts',
  'whyNotTied',
  'whyNotPlatePoints',
]);
/** Held to the same by contracts of their own: a whole shot is made anew, two changes are merged, nobody's rows are kept. */
const ELSEWHERE = new Set(['copierOf', 'duplicateShot', 'copiesOfShot', 'takeIn', 'keepBoth', 'dropUnkept', 'swept']);

const dangling = (doc: ShotDocument): Set<string> =>
  new Set(
    Object.values(doc.entities).flatMap((e) =>
      referencesOf(e).flatMap(({ field, id }) => (doc.entities[id] ? [] : [`${e.kind}.${field} ${id}`])),
    ),
  );

/** Whatever an edit writes into, it must be its own. */
function frozen<T>(thing: T): T {
  if (typeof thing !== 'object' || thing === null || ArrayBuffer.isView(thing) || Object.isFrozen(thing)) return thing;
  Object.freeze(thing);
  Object.values(thing).forEach(frozen);
  return thing;
}
frozen(world);

test('every function of edit/ is entered', () => {
  const functions = Object.entries(edit).flatMap(([name, each]) => (typeof each === 'function' ? [name] : []));
  const known = [...Object.keys(EDITS), ...ASKING, ...ELSEWHERE];
  expect(functions.filter((name) => !known.includes(name))).toEqual([]);
  expect(known.filter((name) => !functions.includes(name))).toEqual([]);
});

describe.each(Object.entries(EDITS))('%s', (_, run) => {
  let [before, after] = [world, world];
  let touched: ReturnType<typeof touchedBetween> = {};
  beforeAll(() => {
    const ran = run();
    [before, after] = Array.isArray(ran) ? (ran as [ShotDocument, ShotDocument]) : [world, ran as ShotDocument];
    touched = touchedBetween(before, after);
  });

  test('does something', () => {
    expect(Object.keys(touched).length).toBeGreaterThan(0);
  });

  test('undo brings back the very same things, and redo the very others', () => {
    const step = { name: 'it', touched };
    const back = applyStep(after, reversed(step))!;
    for (const id of new Set([...Object.keys(before.entities), ...Object.keys(back.entities)]))
      expect(back.entities[id]).toBe(before.entities[id]);
    const again = applyStep(back, step)!;
    for (const id of Object.keys(touched)) expect(again.entities[id]).toBe(after.entities[id]);
  });

  test('leaves valid things that point at nothing that is gone', () => {
    for (const { after: entity } of Object.values(touched))
      if (entity) expect(readEntity(JSON.parse(JSON.stringify(encodeEntity(entity))))).toEqual({ ok: entity });
    const was = dangling(before);
    expect([...dangling(after)].filter((each) => !was.has(each))).toEqual([]);
  });
});
