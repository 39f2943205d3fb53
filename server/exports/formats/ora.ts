/** Frames as OpenRaster (version 0.0.6 of the specification): each layer a picture where it is drawn, with its blend. */
import { find, shotOf, type ShotDocument } from '@tallow/core/document';
import { escaped, sequencesOf, type ExportSettings } from '@tallow/core/formats';
import { createCanvas, type Canvas } from '@napi-rs/canvas';
import { buffer } from 'node:stream/consumers';
import { ZipFile } from 'yazl';
import { frameDrawer, framesOf, type FrameRange } from '../../render/frames.ts';
import { encodedAhead } from '../../render/encoded-ahead.ts';
import { drawnBox, type Crop } from '../../render/raw-frames.ts';
import { framesZip, type EncodeSequence } from './frames-zip.ts';

/** Different frames kept whole, for cycles that come round again: a few MB each. */
const KEPT = 32;
/** Frames whose pictures are being encoded while another is drawn. */
const AHEAD = 2;
/** The longer side of the thumbnail the format asks for, px. */
const THUMBNAIL = 256;

interface Layer {
  readonly name: string;
  readonly operation: string;
  readonly range: FrameRange;
}

type Drawer = ReturnType<typeof frameDrawer>;
type DrawnLayer = Pick<Layer, 'name' | 'operation'> & { readonly drawer: Drawer };

/** Layers of a whole picture, frontmost first. */
const layersOf = (doc: ShotDocument, settings: ExportSettings, range: FrameRange): Layer[] =>
  sequencesOf(doc, { ...settings, parts: 'layers' }).map(({ options }) => {
    const layer = find(doc, 'layer', options.alone);
    const blend = layer?.blend ?? 'normal';
    const word = { normal: 'src-over', lighter: 'plus' }[blend as string] ?? blend;
    return { name: layer?.name ?? '', operation: `svg:${word}`, range: { ...range, options, background: false } };
  });

const cutOut = (picture: Canvas, { left, top, width, height }: Crop): Canvas => {
  const canvas = createCanvas(width, height);
  canvas.getContext('2d').drawImage(picture, left, top, width, height, 0, 0, width, height);
  return canvas;
};

function thumbnail(picture: Canvas): Canvas {
  const by = Math.min(1, THUMBNAIL / Math.max(picture.width, picture.height));
  const canvas = createCanvas(
    Math.max(1, Math.round(picture.width * by)),
    Math.max(1, Math.round(picture.height * by)),
  );
  canvas.getContext('2d').drawImage(picture, 0, 0, canvas.width, canvas.height);
  return canvas;
}

/** One frame as a file. Its pictures are encoded side by side, while the next layer is drawn. */
async function fileOf(
  name: string,
  layers: readonly DrawnLayer[],
  whole: Drawer,
  frame: number,
  doc: ShotDocument,
): Promise<Buffer> {
  const stack: string[] = [];
  const encoded: { readonly file: string; readonly png: Promise<Buffer> }[] = [];
  const add = (file: string, picture: Canvas): Promise<Buffer> => {
    const png = picture.encode('png');
    // What fails is reported where it is awaited.
    png.catch(() => undefined);
    encoded.push({ file, png });
    return png;
  };
  for (const [i, { name: called, operation, drawer }] of layers.entries()) {
    const surface = drawer.draw(frame, doc);
    const picture = surface.picture as Canvas;
    const { data } = picture.getContext('2d').getImageData(0, 0, whole.width, whole.height);
    const box = drawnBox(data, whole.width);
    if (box) {
      const file = `data/layer${i}.png`;
      void add(file, cutOut(picture, box));
      stack.push(
        `<layer name="${escaped(called)}" src="${file}" x="${box.left}" y="${box.top}" opacity="1.0" visibility="visible" composite-op="${operation}"/>`,
      );
    }
    drawer.giveBack(surface);
  }
  const merged = whole.draw(frame, doc);
  const picture = merged.picture as Canvas;
  void add('Thumbnails/thumbnail.png', thumbnail(picture));
  await add('mergedimage.png', picture);
  whole.giveBack(merged);
  const size = `w="${whole.width}" h="${whole.height}"`;
  const xml = `<?xml version="1.0" encoding="UTF-8"?>\n<image version="0.0.6" ${size} xres="72" yres="72">\n<stack name="${escaped(name)}">\n${stack.join('\n')}\n</stack>\n</image>\n`;
  const zip = new ZipFile();
  const bytes = buffer(zip.outputStream);
  // First and stored, so that its kind is known from its first bytes.
  zip.addBuffer(Buffer.from('image/openraster'), 'mimetype', { compress: false });
  for (const { file, png } of encoded) zip.addBuffer(await png, file, { compress: false });
  zip.addBuffer(Buffer.from(xml), 'stack.xml');
  zip.end();
  return bytes;
}

const encode: EncodeSequence = async function* ({ writing, range }) {
  const { outline, documents, settings } = writing;
  const layers = layersOf(outline, settings, range).map((layer) => ({
    ...layer,
    drawer: frameDrawer(outline, layer.range),
  }));
  const whole = frameDrawer(outline, range);
  const frameOf = async (frame: number) => {
    const doc = await documents.at(frame);
    const encode = () => fileOf(shotOf(outline).name, layers, whole, frame, doc);
    return { key: whole.keyOf(frame, doc), encode };
  };
  for await (const file of encodedAhead(framesOf(range), frameOf, { kept: KEPT, ahead: AHEAD }))
    yield { drawn: 1, files: [file] };
};

export const writeOra = framesZip(encode);
