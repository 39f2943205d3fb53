/** Sound as a WAV file: linear PCM of 16 bits, as in Microsoft's and IBM's "Multimedia Programming Interface and Data Specifications 1.0". */

const HEADER = 44;

/** The bytes of a file with one channel. @param samples -1 to 1, more is cut off. @param rate samples a second. */
export function wavOf(samples: Float32Array, rate: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(HEADER + 2 * samples.length);
  const view = new DataView(bytes.buffer);
  const word = (at: number, text: string) => {
    for (let i = 0; i < text.length; i++) bytes[at + i] = text.charCodeAt(i);
  };
  word(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  word(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  // PCM, one channel.
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, 2 * rate, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  word(36, 'data');
  view.setUint32(40, 2 * samples.length, true);
  samples.forEach((value, i) => {
    view.setInt16(HEADER + 2 * i, Math.round(32767 * Math.max(-1, Math.min(1, value))), true);
  });
  return bytes;
}
