export {
  addMark,
  addMarks,
  breakHold,
  clipOf,
  type ClipPart,
  copyDrawing,
  deleteExposure,
  deleteRuns,
  type Deleting,
  insertBlank,
  insertClip,
  type LandingPlace,
  landMarks,
  moveToNewDrawing,
  newDrawing,
  newDrawingBefore,
  pasteClip,
  whyNotDrawable,
} from './drawings.ts';
export {
  holdFor,
  indicesOf,
  isSelected,
  layerOn,
  moveSelectedRuns,
  type RunSelection,
  rollStart,
  setStill,
  shiftPhase,
  spanOf,
  stretchSelectedRuns,
} from './exposures.ts';
export {
  addFolder,
  addLayer,
  addStill,
  deleteLayer,
  dissolveFolder,
  listOf,
  lockOthers,
  moveLayer,
  setFolder,
  setLayer,
} from './layers.ts';
export { joinDrawing, joinLayers, joinSeen, type Keeps, whyNotJoined } from './join-layers.ts';
export { addElement, deleteElement, fitAxis, raisePlacement, setElement, setStart } from './elements.ts';
export { addSwatch, resizeShot, setShot, setSwatch } from './shot.ts';
export { addPlate, deletePlate, layPlate, type PlateSettings, setPlate, setPlateCorners } from './plates.ts';
export {
  changeMarks,
  copiesOf,
  deleteMarks,
  duplicateMarks,
  joinMarks,
  type MarkSets,
  namedPiece,
  type Ordering,
  orderMarks,
  replaceMarks,
} from './marks.ts';
export { movedAlong } from './moved-along.ts';
export {
  addRecolour,
  addSwatches,
  dropRecolour,
  isUsed,
  type LooseSwatch,
  mergeSwatch,
  moveSwatch,
  removeSwatches,
  replaceSwatch,
  seeRecolour,
  setRecolour,
  swatchesOf,
  swatchesOn,
  unusedSwatches,
  usesOf,
} from './palette.ts';
export { boundsAt, FILL_BOUNDS, type FillBounds, fillPlace, slotsFrom, withFillLayer } from './fill-place.ts';
export {
  fillOfLayer,
  type FillPlan,
  layFills,
  refillable,
  relayFills,
  repaint,
  type StaleFill,
  staleFills,
  unfill,
} from './fills.ts';
export { type CutTone, isByTone, layTone, newTone, toneAbout, type ToneSlot, toneSlots, tonesOf } from './tones.ts';
export { isLaidByItself } from './laid-by-itself.ts';
export { keepBoth, rescueDrawing } from './keep-both.ts';
export { type Acknowledged, adoptPending, type Pending, takeIn, type TakenIn, type Theirs } from './take-in.ts';
export { copyParts } from './copy-parts.ts';
export { type PartsClip, pasteParts, takeParts } from './parts-clip.ts';
export { restyle, restyled, type Style } from './restyle.ts';
export { copiesOfShot, duplicateShot } from './duplicate.ts';
export { copierOf } from './new-ids.ts';
export { type Timed } from './place.ts';
export {
  addGuide,
  addPath,
  addSketch,
  cutPath,
  deleteGuide,
  deletePath,
  type GuideSettings,
  joinPaths,
  type PathSettings,
  revealDrawing,
  setGuide,
  setPath,
  setPlan,
  stampPath,
} from './plan.ts';
export { type ByHand, deleteStarter, layStarter, releaseStarter, startersOf } from './starters.ts';
export { swept, tiedTo } from './sweep.ts';
export {
  changeStretch,
  makeOwn,
  rollEnd,
  type RunsChange,
  shownTimes,
  splitHere,
  type Stretch,
  swapRuns,
} from './stretches.ts';
export {
  bareGroups,
  bareRuns,
  framesLeft,
  lineOver,
  nextBare,
  prepareSlots,
  slotsOf,
  tieLayer,
  untieLayer,
  whyNotSlotsOf,
  whyNotTied,
} from './ties.ts';
export { type Entry, HIGHEST_NUMBER, numberAnew, readEntry, typeInto } from './cells.ts';
export { type Cell, cellAt, computedSlots } from './sheet-cells.ts';
export {
  drawingsOfScope,
  dropVariant,
  keepVariant,
  layerScope,
  nameVariant,
  showVariant,
  variantsAbout,
  variantsOf,
  wholeScope,
} from './variants.ts';
export { cutCycle, resizeTime, shortestLength, startAt, turnRound } from './cycle.ts';
export { dropKey, LAYER_VALUES, type LayerValue, setKey, setValue, valueOf } from './values.ts';
export {
  addLook,
  copyLooks,
  dropLook,
  keyedFrames,
  keyLookNumber,
  moveLook,
  newLook,
  setLook,
  setLookNumber,
} from './looks.ts';
export {
  betweenAtFrame,
  type BetweenFrames,
  type BetweenPlan,
  betweensOf,
  betweenWork,
  crossesSeam,
  drawingBefore,
  fitsWithin,
  freeBetween,
  type Gap,
  gapAt,
  layBetweens,
  relayBetween,
  takeBetween,
  touchedSlots,
} from './betweens.ts';
export { tiedBetweenDrawings, tiedBetweens, tonedBetween } from './tied-betweens.ts';
export { cutHeld, movesHeld, roomAfter, type SmearPlan } from './smear-ways.ts';
export { newSmear, smearPlace, type SmearPlace, smearsOf, smearWork, subjectLayers } from './smear-work.ts';
export { freeSmear, laySmear, relaySmear, takeSmear } from './smears.ts';
export { CONTACT_NAMES, layContactWays, putArrival } from './arrivals.ts';
export { freeRide, layRide, relayRide, type RideAsked, rideOfLayer, setRide, whyNotRide } from './rides.ts';
export { boilRoom, defaultRepeat, layBoil, middleFrame, setPose, setRepeat } from './poses.ts';
export { addPlatePoints, dropTrace, putTracePoint, traceTicks, whyNotPlatePoints } from './traces.ts';
export { deleteEntities, dropUnkept } from './remove.ts';
export { carriedTo, carryOn, nextToClean, roughFor, toClean } from './clean.ts';
export { isOlder, renewBrushes } from './brushes.ts';
export {
  copyPlacement,
  type Into,
  makeUseOwn,
  movePlacement,
  placeElement,
  type PlacementSettings,
  removePlacements,
  setPlacements,
  splitPlacement,
  trimEnd,
  trimStart,
  whyNotInside,
} from './placements.ts';
export { addPlane, movePlane, removePlane, setPlane, setPlaneDepth, whyNotRemovePlane } from './planes.ts';
export {
  addShake,
  CAMERA_VALUES,
  type CameraValue,
  dropCameraKey,
  removeShake,
  setCamera,
  setCameraKey,
  setCameraPath,
  setDepthOfShot,
  setShake,
} from './camera.ts';
export {
  addLightOf,
  addLightOn,
  dropLightKey,
  type LightValue,
  removeLight,
  setFallsOn,
  setLight,
  setLightKey,
  setLightValue,
  whyNotLight,
} from './lights.ts';
export { addSound, copySound, removeSound, setSound, trimSoundEnd, trimSoundStart } from './sounds.ts';
export { type Contact, contactsOf, layWash, washOver } from './wash.ts';
export { type ChangingValue, changingValues, easeKey, moveKey, takeKey } from './all-values.ts';
export { type CutOffUse, cutOfPlacement } from './cut-off-mends.ts';
export { copyIntoDepth, whyNotIntoDepth } from './depth-copies.ts';
export {
  layScatter,
  newScattering,
  rational,
  relayScatter,
  scattered,
  type ScatterSettings,
  takeScatter,
  touchedCopies,
} from './scatter.ts';
export { anchorPlace, movedBy, movePlaces, type PlaceMove, setCorners, setPlaceAnchor } from './place-moves.ts';
export { addBrought, type BroughtMarks, type ColouredMark } from './brought-marks.ts';
export { layScans, type ScannedDrawing } from './scans.ts';
export { writeSheet } from './sheet-in.ts';
export { bringBack } from './bring-back.ts';
export { heal } from './heal.ts';
