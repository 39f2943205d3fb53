/** Files damaged in one of four ways: a bit, some bytes gone dark, a part copied over another, an end that is missing. */

/** How many of each kind: few with every change, `TALLOW_DAMAGED=500` for a long look. */
export const damagedCount = (preset: number): number => Number(process.env['TALLOW_DAMAGED'] ?? preset);

export function damaged(whole: Buffer, random: () => number, nth: number): Buffer {
  const content = Buffer.from(whole);
  const place = Math.floor(random() * content.length);
  switch (nth % 4) {
    case 0:
      content[place]! ^= 1 << Math.floor(random() * 8);
      return content;
    case 1:
      content.fill(0, place, Math.min(content.length, place + 1 + Math.floor(random() * 32)));
      return content;
    case 2:
      content.copy(content, place, Math.floor(random() * content.length));
      return content;
    default:
      return content.subarray(0, place);
  }
}
