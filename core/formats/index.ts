export { exposureSheet } from './exposure-sheet.ts';
export {
  ALPHA_KINDS,
  type AlphaKind,
  EXPORT_FAMILIES,
  EXPORT_FORMATS,
  type ExportFamily,
  type ExportFormat,
  type ExportFormatName,
  exportFormats,
  formatsOf,
} from './exports/index.ts';
export {
  brighteningLayers,
  DEFAULT_EXPORT,
  DEFAULT_PATTERN,
  deliveredFrames,
  deliveriesOf,
  deliveryName,
  EXPORT_LAYERS,
  EXPORT_LIMITS,
  EXPORT_PARTS,
  EXPORT_SCALE,
  type ExportCrop,
  type ExportSettings,
  fileStem,
  firstNumber,
  forFormat,
  frameName,
  leftOut,
  MAX_DELIVERIES,
  patternProblem,
  pictureOptions,
  type Sequence,
  sequencesOf,
  takenFrames,
  versionProblem,
} from './export-settings.ts';
export { exportNotes, type Lies } from './export-notes.ts';
export { paletteCss, paletteText, readPalette } from './palette.ts';
export { readSheet } from './sheet-text.ts';
export { sheetPage } from './sheet-page.ts';
export {
  Defs,
  escaped,
  frameSvg,
  itemsText,
  movingSvg,
  NoSvg,
  type Pictured,
  readSvg,
  type SvgNode,
  type SvgSpan,
} from './svg/index.ts';
export { readUnsaved, unsavedText } from './unsaved-work.ts';
export {
  ARCHIVE_ENDING,
  type ArchivedAsset,
  type ArchivedRow,
  archivedRow,
  type ArchivedShot,
  type ArchiveManifest,
  archivePath,
  MANIFEST,
  manifestText,
  readManifest,
} from './archive.ts';
