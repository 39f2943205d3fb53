/**
 * Drawings put aside: their marks lie with the browser, as a blob that it keeps outside the page's memory, on disk where
 * it needs to. Such a drawing is the same object as before, so nothing that goes by its identity (history, what is saved,
 * all that is kept by it) takes notice; its marks are read back when somebody looks at them. Whoever knows beforehand
 * which drawings will be looked at has them read without holding the page up (`toHand`). See docs/decisions/0004.
 */
import { bytesOfMarks, packedMarks, unpackedMarks, type Drawing } from '@tallow/core/document';

type Marks = Drawing['marks'];

/** Reads a blob at once, while the page waits. @throws where the browser has lost it. */
function readNow(blob: Blob): ArrayBuffer {
  const url = URL.createObjectURL(blob);
  try {
    const request = new XMLHttpRequest();
    request.open('GET', url, false);
    // A request that is waited for gives text only: letters whose low bytes are the bytes.
    request.overrideMimeType('text/plain; charset=x-user-defined');
    request.send();
    const text = request.responseText;
    const bytes = new Uint8Array(text.length);
    for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i) & 0xff;
    return bytes.buffer;
  } finally {
    URL.revokeObjectURL(url);
  }
}

export class Asides {
  /** Drawings never change, so what was packed once is not packed again. */
  private readonly blobs = new WeakMap<Drawing, Blob>();
  private readonly aside = new WeakSet<Drawing>();
  private readonly sizes = new WeakMap<Drawing, number>();
  private readonly since = new WeakMap<Drawing, number>();
  /** How often the page had to wait for marks. */
  waits = 0;
  /** Gets marks from elsewhere where the browser has lost them. */
  whenLost: ((drawing: Drawing) => Promise<Marks>) | null = null;

  /** @param readAtOnce reads a blob while the page waits. @param now ms. */
  constructor(
    private readonly readAtOnce: (blob: Blob) => ArrayBuffer,
    private readonly now: () => number = () => performance.now(),
  ) {}

  isAside(drawing: Drawing): boolean {
    return this.aside.has(drawing);
  }

  /** Roughly how much memory its marks take when they are at hand, bytes. */
  sizeOf(drawing: Drawing): number {
    const known = this.sizes.get(drawing);
    if (known !== undefined) return known;
    const size = bytesOfMarks(drawing.marks);
    this.sizes.set(drawing, size);
    return size;
  }

  /** ms since its marks were read back. */
  restFor(drawing: Drawing): number {
    return this.now() - (this.since.get(drawing) ?? -Infinity);
  }

  /** Puts a drawing aside; it stays at hand where the browser has no room for it. */
  async putAside(drawing: Drawing): Promise<void> {
    if (this.aside.has(drawing)) return;
    this.sizeOf(drawing);
    const blob = this.blobs.get(drawing) ?? new Blob(packedMarks(drawing.marks) as BlobPart[]);
    try {
      // A blob that found no room is found out when it is read.
      await blob.slice(0, 1).arrayBuffer();
    } catch {
      return;
    }
    if (this.aside.has(drawing)) return;
    this.blobs.set(drawing, blob);
    this.aside.add(drawing);
    Object.defineProperty(drawing, 'marks', {
      configurable: true,
      enumerable: true,
      get: () => {
        this.waits += 1;
        return this.back(drawing, unpackedMarks(this.readAtOnce(blob)));
      },
    });
  }

  /** Where the browser keeps the marks of a drawing that lies aside. */
  blobOf(drawing: Drawing): Blob | undefined {
    return this.aside.has(drawing) ? this.blobs.get(drawing) : undefined;
  }

  /** The marks of a drawing, which stays where it is. */
  async marksOf(drawing: Drawing): Promise<Marks> {
    const blob = this.blobs.get(drawing);
    return blob && this.aside.has(drawing) ? this.read(drawing, blob) : drawing.marks;
  }

  /** Has the marks of drawings read back; the page goes on meanwhile. */
  async toHand(drawings: readonly Drawing[]): Promise<void> {
    for (const drawing of drawings) {
      const blob = this.blobs.get(drawing);
      if (!blob || !this.aside.has(drawing)) continue;
      const marks = await this.read(drawing, blob);
      // Somebody may not have waited for it.
      if (this.aside.has(drawing)) this.back(drawing, marks);
    }
  }

  private async read(drawing: Drawing, blob: Blob): Promise<Marks> {
    try {
      return unpackedMarks(await blob.arrayBuffer());
    } catch (error) {
      if (!this.whenLost) throw error;
      return this.whenLost(drawing);
    }
  }

  private back(drawing: Drawing, marks: Marks): Marks {
    this.aside.delete(drawing);
    this.since.set(drawing, this.now());
    Object.defineProperty(drawing, 'marks', { configurable: true, enumerable: true, writable: true, value: marks });
    return marks;
  }
}

/** Those of this page. */
export const asides = new Asides(readNow);
