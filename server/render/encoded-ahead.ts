/** Frames encoded on other threads while the next are drawn; those that show the same are drawn and encoded once. */

interface Encoding<T> {
  /** Frames of the same key look the same. */
  readonly key: string;
  /** Draws it, and begins to encode it. */
  readonly encode: () => Promise<T>;
}

/**
 * Yields what each frame was encoded to, in order.
 * @param frameOf is asked for each frame once, in order.
 * @param kept how many different frames are kept encoded, for cycles that come round again.
 * @param ahead how many may be being encoded while another is drawn.
 */
export async function* encodedAhead<T>(
  frames: readonly number[],
  frameOf: (frame: number) => Promise<Encoding<T>>,
  { kept, ahead }: { readonly kept: number; readonly ahead: number },
): AsyncGenerator<T> {
  const known = new Map<string, Promise<T>>();
  let encoding = 0;
  const encodedOf = ({ key, encode }: Encoding<T>): Promise<T> => {
    const before = known.get(key);
    if (before) return before;
    encoding += 1;
    const encoded = encode().finally(() => (encoding -= 1));
    // What fails is reported where it is awaited.
    encoded.catch(() => undefined);
    known.set(key, encoded);
    if (known.size > kept) known.delete(known.keys().next().value!);
    return encoded;
  };
  const drawn: Promise<T>[] = [];
  let next = 0;
  while (next < frames.length || drawn.length > 0) {
    while (next < frames.length && (drawn.length === 0 || (encoding < ahead && drawn.length < kept / 2))) {
      drawn.push(encodedOf(await frameOf(frames[next]!)));
      next += 1;
    }
    yield await drawn.shift()!;
  }
}
