/**
 * Decodes pictures, in a process of its own: a picture made to hurt takes this down and nothing else. Asked by `picture-decoder.ts`,
 * which ends it where it takes too long or too much. Plain JavaScript, as it is run without being built.
 */
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { readFileSync } from 'node:fs';
import { inflateSync, crc32 } from 'node:zlib';

/** Samples of a pixel by the kind of colour. */
const SAMPLES = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };
/** Where the passes of an interlaced picture begin, and their steps: PNG, third edition, 8.1. */
const PASSES = [
  [0, 0, 8, 8],
  [4, 0, 8, 8],
  [0, 4, 4, 8],
  [2, 0, 4, 4],
  [0, 2, 2, 4],
  [1, 0, 2, 2],
  [0, 1, 1, 2],
];

/** Bytes of all rows of a PNG, each with its filter. */
function bytesOfRows(width, height, bits, interlaced) {
  const part = (w, h) => (w > 0 && h > 0 ? h * (1 + Math.ceil((w * bits) / 8)) : 0);
  if (!interlaced) return part(width, height);
  return PASSES.reduce(
    (sum, [x, y, dx, dy]) => sum + part(Math.ceil((width - x) / dx), Math.ceil((height - y) / dy)),
    0,
  );
}

/** Whether every chunk of a PNG is as its check says, and all rows are there: decoders fill in what is missing and say nothing. */
function isWholePng(content) {
  const data = [];
  let rows = 0;
  for (let at = 8; at + 12 <= content.length;) {
    const length = content.readUInt32BE(at);
    const end = at + 12 + length;
    if (end > content.length) return false;
    const name = content.toString('latin1', at + 4, at + 8);
    if (crc32(content.subarray(at + 4, end - 4)) !== content.readUInt32BE(end - 4)) return false;
    if (name === 'IHDR') {
      const samples = SAMPLES[content[at + 17]];
      if (!samples || length !== 13) return false;
      const [width, height] = [content.readUInt32BE(at + 8), content.readUInt32BE(at + 12)];
      rows = bytesOfRows(width, height, samples * content[at + 16], content[at + 20] === 1);
    }
    if (name === 'IDAT') data.push(content.subarray(at + 8, end - 4));
    if (name === 'IEND') {
      try {
        return inflateSync(Buffer.concat(data), { maxOutputLength: rows + 1 }).length === rows;
      } catch {
        return false;
      }
    }
    at = end;
  }
  return false;
}

/** @returns what it is, drawn as a PNG where it is not kept as it is; null where it is broken; or that it is too large. */
async function decoded({ content, kind, keeps, pixels }) {
  if (kind === 'png' && !isWholePng(content)) return null;
  const image = await loadImage(content);
  const { width, height } = image;
  if (!(width >= 1 && height >= 1)) return null;
  // Told once more: one reader may find another size than the next.
  if (width * height > pixels) return { tooLarge: width * height };
  // Drawn, as only then all of it is decoded.
  const canvas = createCanvas(keeps ? 1 : width, keeps ? 1 : height);
  canvas.getContext('2d').drawImage(image, 0, 0);
  return { width, height, content: keeps ? null : await canvas.encode('png') };
}

process.on('message', ({ id, ...asked }) => {
  // Large ones lie in a file.
  asked.content = typeof asked.content === 'string' ? readFileSync(asked.content) : Buffer.from(asked.content);
  decoded(asked).then(
    (answer) => process.send({ id, answer }),
    () => process.send({ id, answer: null }),
  );
});
process.on('disconnect', () => process.exit());
