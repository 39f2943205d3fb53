/**
 * Float32 columns as text: base64 of little-endian bytes. Exact both ways, so a stroke never
 * changes on its way through JSON.
 */
const ALPHABET = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
const VALUES = new Int16Array(128).fill(-1);
for (let i = 0; i < 64; i++) VALUES[ALPHABET.charCodeAt(i)] = i;

const CODES = Uint8Array.from(ALPHABET, (letter) => letter.charCodeAt(0));
const PAD = '='.charCodeAt(0);
const ascii = new TextDecoder();

/** Encodes a column. */
export function encodeColumn(column: Float32Array): string {
  const bytes = new Uint8Array(column.length * 4);
  const view = new DataView(bytes.buffer);
  for (let i = 0; i < column.length; i++) view.setFloat32(i * 4, column[i]!, true);
  const text = new Uint8Array(Math.ceil(bytes.length / 3) * 4);
  let at = 0;
  for (let i = 0; i < bytes.length; i += 3) {
    const left = bytes.length - i;
    const word = (bytes[i]! << 16) | ((left > 1 ? bytes[i + 1]! : 0) << 8) | (left > 2 ? bytes[i + 2]! : 0);
    text[at++] = CODES[word >> 18]!;
    text[at++] = CODES[(word >> 12) & 63]!;
    text[at++] = left > 1 ? CODES[(word >> 6) & 63]! : PAD;
    text[at++] = left > 2 ? CODES[word & 63]! : PAD;
  }
  return ascii.decode(text);
}

/** Decodes a column, or returns null when the text is no base64 of whole, finite 32-bit floats. */
export function decodeColumn(text: string): Float32Array | null {
  if (text.length % 4 !== 0) return null;
  const padding = text.endsWith('==') ? 2 : text.endsWith('=') ? 1 : 0;
  const size = (text.length / 4) * 3 - padding;
  if (size % 4 !== 0) return null;
  const bytes = new Uint8Array(size);
  let at = 0;
  for (let i = 0; i < text.length; i += 4) {
    let word = 0;
    for (let k = 0; k < 4; k++) {
      const code = text.charCodeAt(i + k);
      const padded = i + k >= text.length - padding;
      const value = padded ? 0 : code < 128 ? VALUES[code]! : -1;
      if (value < 0) return null;
      word = (word << 6) | value;
    }
    if (at < size) bytes[at++] = (word >> 16) & 255;
    if (at < size) bytes[at++] = (word >> 8) & 255;
    if (at < size) bytes[at++] = word & 255;
  }
  const view = new DataView(bytes.buffer);
  const column = new Float32Array(size / 4);
  for (let i = 0; i < column.length; i++) {
    const value = view.getFloat32(i * 4, true);
    if (!Number.isFinite(value)) return null;
    column[i] = value;
  }
  return column;
}
