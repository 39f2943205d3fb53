/** Frames as OpenRaster (version 0.0.6 of the specification): each layer a picture where it is drawn, with its blend. */
import { find, shotOf, type ShotDocument } from '@tallow/core/document';
import { escaped, sequencesOf, type ExportSettings } from '@tallow/core/formats';
import { createCanvas, type Canvas } from '@napi-rs/canvas';
import { buffer } from 'node:stream/consumers';
import { ZipFile } from 'yazl';
import { frameDrawer, framesOf, type FrameRange } from '../../render/frames.ts';
import { drawnBox, type Crop } from '../../render/raw-frames.ts';
import { framesZip, type EncodeSequence } from './frames-zip.ts';

/** The longer side of the thumbnail the format asks for, px. */
const THUMBNAIL = 256;

interface Layer {
  readonly name: string;
  readonly operation: string;
  readonly range: FrameRange;
}

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

const encode: EncodeSequence = async function* ({ writing, range }) {
  const { outline, documents, settings } = writing;
  const layers = layersOf(outline, settings, range).map((layer) => ({
    ...layer,
    drawer: frameDrawer(outline, layer.range),
  }));
  const whole = frameDrawer(outline, range);
  for (const frame of framesOf(range)) {
    const doc = await documents.at(frame);
    const zip = new ZipFile();
    const bytes = buffer(zip.outputStream as unknown as NodeJS.ReadableStream);
    // First and stored, so that its kind is told by its first bytes.
    zip.addBuffer(Buffer.from('image/openraster'), 'mimetype', { compress: false });
    const stack: string[] = [];
    for (const [i, { name, operation, drawer }] of layers.entries()) {
      const surface = drawer.draw(frame, doc);
      const picture = surface.picture as Canvas;
      const { data } = picture.getContext('2d').getImageData(0, 0, whole.width, whole.height);
      const box = drawnBox(data, whole.width);
      if (box) {
        const file = `data/layer${i}.png`;
        zip.addBuffer(await cutOut(picture, box).encode('png'), file, { compress: false });
        stack.push(
          `<layer name="${escaped(name)}" src="${file}" x="${box.left}" y="${box.top}" opacity="1.0" visibility="visible" composite-op="${operation}"/>`,
        );
      }
      drawer.giveBack(surface);
    }
    const merged = whole.draw(frame, doc);
    const picture = merged.picture as Canvas;
    zip.addBuffer(await picture.encode('png'), 'mergedimage.png', { compress: false });
    zip.addBuffer(await thumbnail(picture).encode('png'), 'Thumbnails/thumbnail.png', { compress: false });
    whole.giveBack(merged);
    const size = `w="${whole.width}" h="${whole.height}"`;
    const xml = `<?xml version="1.0" encoding="UTF-8"?>\n<image version="0.0.6" ${size} xres="72" yres="72">\n<stack name="${escaped(shotOf(outline).name)}">\n${stack.join('\n')}\n</stack>\n</image>\n`;
    zip.addBuffer(Buffer.from(xml), 'stack.xml');
    zip.end();
    yield { drawn: 1, files: [await bytes] };
  }
};

export const writeOra = framesZip(encode);
