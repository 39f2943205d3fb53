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

/** Whether this machine keeps numbers as columns are kept: then bytes are taken as they lie. */
const IS_LITTLE = new Uint8Array(Uint32Array.of(1).buffer)[0] === 1;

/** The floats that little-endian bytes are. */
function floatsOf(bytes: Uint8Array): Float32Array {
  if (IS_LITTLE) return new Float32Array(bytes.buffer, 0, bytes.length / 4);
  const view = new DataView(bytes.buffer);
  return Float32Array.from({ length: bytes.length / 4 }, (_, i) => view.getFloat32(i * 4, true));
}

/** The value of a letter of base64, or -1. */
const valueOf = (text: string, i: number): number => {
  const code = text.charCodeAt(i);
  return code < 128 ? VALUES[code]! : -1;
};

/** Decodes a column, or returns null when the text is no base64 of whole, finite 32-bit floats. */
export function decodeColumn(text: string): Float32Array | null {
  const { length } = text;
  if (length % 4 !== 0) return null;
  const padding = text.endsWith('==') ? 2 : text.endsWith('=') ? 1 : 0;
  const size = (length / 4) * 3 - padding;
  if (size % 4 !== 0) return null;
  const bytes = new Uint8Array(size);
  const whole = padding > 0 ? length - 4 : length;
  let at = 0;
  for (let i = 0; i < whole; i += 4) {
    const a = valueOf(text, i);
    const b = valueOf(text, i + 1);
    const c = valueOf(text, i + 2);
    const d = valueOf(text, i + 3);
    // Any of them below 0 makes all of it so.
    if ((a | b | c | d) < 0) return null;
    const word = (a << 18) | (b << 12) | (c << 6) | d;
    bytes[at++] = word >> 16;
    bytes[at++] = (word >> 8) & 255;
    bytes[at++] = word & 255;
  }
  if (padding > 0) {
    const [a, b, c] = [valueOf(text, whole), valueOf(text, whole + 1), padding === 1 ? valueOf(text, whole + 2) : 0];
    if ((a | b | c) < 0) return null;
    const word = (a << 18) | (b << 12) | (c << 6);
    bytes[at++] = word >> 16;
    if (padding === 1) bytes[at] = (word >> 8) & 255;
  }
  const column = floatsOf(bytes);
  for (let i = 0; i < column.length; i++) if (!Number.isFinite(column[i])) return null;
  return column;
}
