/** Frames as SVG, one by one or as one that moves. */
import { Defs, frameSvg, movingSvg, itemsText, type Pictured, type SvgSpan } from '@tallow/core/formats';
import type { ShotDocument } from '@tallow/core/document';
import { drawListOf, type DrawItem } from '@tallow/core/render';
import type { Canvas } from '@napi-rs/canvas';
import { writeFile } from 'node:fs/promises';
import { frameDrawer, framesOf, type FrameRange } from '../../render/frames.ts';
import { framesZip } from './frames-zip.ts';
import { exportRange } from './range.ts';
import type { Writer, Writing } from './writer.ts';

/** What paths cannot say of an item, drawn: each layer alone. The items of one layer that lie in one use are drawn once. */
function picturedOn({ outline }: Writing, range: FrameRange, frame: number, doc: ShotDocument): Pictured {
  const drawn = new Set<string>();
  return ({ asset, layerId, place }: DrawItem) => {
    const key = `${layerId}@${place}`;
    if (asset !== undefined || drawn.has(key)) return null;
    drawn.add(key);
    const options = { ...range.options, alone: layerId, place };
    const drawer = frameDrawer(outline, { ...range, options, background: false, part: null });
    const surface = drawer.draw(frame, doc);
    const png = (surface.picture as Canvas).toBuffer('image/png');
    drawer.giveBack(surface);
    return `data:image/png;base64,${png.toString('base64')}`;
  };
}

/** Sheets of a frame that can be said: plates are pictures from outside. */
const sheetsAt = (doc: ShotDocument, frame: number, { options }: FrameRange): DrawItem[] =>
  drawListOf(doc, frame, options).filter(({ asset }) => asset === undefined);

/** Different frames kept as text, for cycles that come round again. */
const KEPT = 32;

export const writeSvg = framesZip(async function* ({ writing, range }) {
  const { outline, documents, settings } = writing;
  const { scale, background, crop } = settings;
  const drawer = frameDrawer(outline, range);
  const known = new Map<string, Buffer>();
  for (const frame of framesOf(range)) {
    const doc = await documents.at(frame);
    const key = drawer.keyOf(frame, doc);
    const madeNow = (): Buffer => {
      const pictured = picturedOn(writing, range, frame, doc);
      return Buffer.from(frameSvg(doc, sheetsAt(doc, frame, range), { scale, background, crop, pictured }));
    };
    const file = known.get(key) ?? madeNow();
    known.set(key, file);
    if (known.size > KEPT) known.delete(known.keys().next().value!);
    yield { drawn: 1, files: [file] };
  }
});

export const writeSvgMoving: Writer = async (writing) => {
  const { outline, documents, settings, path, tell } = writing;
  const { scale, background, crop } = settings;
  const range = exportRange(writing);
  const drawer = frameDrawer(outline, range);
  const defs = new Defs();
  const spans: SvgSpan[] = [];
  const known = new Map<string, string>();
  let last = '';
  for (let frame = range.from; frame < range.to; frame++) {
    const doc = await documents.at(frame);
    const key = drawer.keyOf(frame, doc);
    const content =
      known.get(key) ?? itemsText(doc, sheetsAt(doc, frame, range), picturedOn(writing, range, frame, doc), defs);
    known.set(key, content);
    const before = spans.at(-1);
    if (before && key === last) spans[spans.length - 1] = { ...before, frames: before.frames + 1 };
    else spans.push({ content, frames: 1 });
    last = key;
    if (!(await tell(frame + 1 - range.from))) return false;
  }
  await writeFile(path, movingSvg(outline, spans, defs, { scale, background, crop }));
  return true;
};
