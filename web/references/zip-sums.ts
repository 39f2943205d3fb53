/** What a zip says its entries come to: the directory at its end, as in PKWARE's APPNOTE.TXT, 4.3.12 and 4.3.16. */

const [ENTRY, END] = [0x02014b50, 0x06054b50] as const;
/** Bytes of the directory's entry and of its end, without names and comments. */
const [ENTRY_BYTES, END_BYTES] = [46, 22] as const;
/** Of an entry's flags: its name is UTF-8. */
const UTF8 = 1 << 11;
const LONGEST_COMMENT = 65_535;

/** @returns the CRC-32 of each entry by name, as signed 32-bit numbers; null where the file has no directory that can be read. */
export async function sumsIn(file: Blob): Promise<ReadonlyMap<string, readonly number[]> | null> {
  const from = Math.max(0, file.size - END_BYTES - LONGEST_COMMENT);
  const tail = new DataView(await file.slice(from).arrayBuffer());
  let end = tail.byteLength - END_BYTES;
  while (end >= 0 && tail.getUint32(end, true) !== END) end--;
  if (end < 0) return null;
  const [bytes, start] = [tail.getUint32(end + 12, true), tail.getUint32(end + 16, true)];
  if (start + bytes > file.size) return null;
  const directory = await file.slice(start, start + bytes).arrayBuffer();
  const view = new DataView(directory);
  const { strFromU8 } = await import('fflate');
  const sums = new Map<string, readonly number[]>();
  for (let at = 0; at + ENTRY_BYTES <= bytes && view.getUint32(at, true) === ENTRY;) {
    const [name, extra, comment] = [28, 30, 32].map((offset) => view.getUint16(at + offset, true)) as [
      number,
      number,
      number,
    ];
    if (at + ENTRY_BYTES + name > bytes) return null;
    // Names are read as the library reads them: without the mark of UTF-8, a letter a byte. One name can stand there twice.
    const isUtf8 = (view.getUint16(at + 8, true) & UTF8) !== 0;
    const own = strFromU8(new Uint8Array(directory, at + ENTRY_BYTES, name), !isUtf8);
    sums.set(own, [...(sums.get(own) ?? []), view.getInt32(at + 16, true)]);
    at += ENTRY_BYTES + name + extra + comment;
  }
  return sums;
}
