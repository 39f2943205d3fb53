import { bytesOfMarks, same, type Drawing, type Stroke } from '@tallow/core/document';
import { Asides } from './aside.ts';

const numbers = (from: number): Float32Array => Float32Array.from({ length: 8 }, (_, i) => from + i / 3);
const stroke = (id: string): Stroke => ({
  kind: 'stroke',
  id,
  swatch: 's',
  brush: { kind: 'ink', width: 4, opacity: 1, pressure: true },
  seed: 7,
  samples: { x: numbers(1), y: numbers(2), pressure: numbers(0), altitude: numbers(0.5), azimuth: numbers(3) },
});
const drawing = (): Drawing => ({
  kind: 'drawing',
  id: 'd',
  marks: { a: stroke('a'), b: stroke('b') },
  order: ['a', 'b'],
});

/** Blobs that can be read at once, as a page can read them. */
class Pages {
  private readonly read = new Map<Blob, ArrayBuffer>();
  now = 0;
  readonly asides = new Asides(
    (blob) => this.read.get(blob)!,
    () => this.now,
  );

  async putAside(given: Drawing): Promise<void> {
    const { Blob: Plain } = globalThis;
    const made: Blob[] = [];
    globalThis.Blob = class extends Plain {
      constructor(parts?: BlobPart[]) {
        super(parts as ConstructorParameters<typeof Plain>[0]);
        made.push(this);
      }
    } as typeof Blob;
    await this.asides.putAside(given);
    globalThis.Blob = Plain;
    for (const blob of made) this.read.set(blob, await blob.arrayBuffer());
  }
}

// What is changed of Node.js is changed for all tests that run after this one.
const { slice, arrayBuffer } = Blob.prototype;
afterEach(() => {
  Object.assign(Blob.prototype, { slice, arrayBuffer });
});

test('a drawing that lies aside is the same object, and its marks are the same when somebody looks', async () => {
  const page = new Pages();
  const given = drawing();
  await page.putAside(given);
  expect(page.asides.isAside(given)).toBe(true);
  expect(given.order).toEqual(['a', 'b']);
  expect(page.asides.waits).toBe(0);
  expect(same(given, drawing())).toBe(true);
  expect(page.asides.waits).toBe(1);
  expect(page.asides.isAside(given)).toBe(false);
  // Read once, it is at hand.
  expect(given.marks).toBe(given.marks);
  expect(page.asides.waits).toBe(1);
});

test('a copy or an edit of it holds the marks themselves', async () => {
  const page = new Pages();
  const given = drawing();
  await page.putAside(given);
  const edited: Drawing = { ...given, order: ['a'] };
  await page.putAside(given);
  expect(same(edited.marks, drawing().marks)).toBe(true);
  expect(structuredClone(edited)).toEqual({ ...drawing(), order: ['a'] });
});

test('read beforehand, nobody has to wait; looked at for somebody else, it goes on lying aside', async () => {
  const page = new Pages();
  const given = drawing();
  await page.putAside(given);
  expect(await page.asides.marksOf(given)).toEqual(drawing().marks);
  expect(page.asides.isAside(given)).toBe(true);
  await page.asides.toHand([given]);
  expect(page.asides.isAside(given)).toBe(false);
  expect(given).toEqual(drawing());
  expect(page.asides.waits).toBe(0);
});

test('it is known how much it takes while it lies aside, and how long it has been at hand again', async () => {
  const page = new Pages();
  const given = drawing();
  expect(page.asides.restFor(given)).toBe(Infinity);
  await page.putAside(given);
  expect(page.asides.sizeOf(given)).toBe(bytesOfMarks(drawing().marks));
  expect(page.asides.isAside(given)).toBe(true);
  page.now = 100;
  await page.asides.toHand([given]);
  page.now = 130;
  expect(page.asides.restFor(given)).toBe(30);
});

test('where the browser has no room a drawing stays at hand', async () => {
  const page = new Pages();
  const given = drawing();
  Blob.prototype.slice = () => ({ arrayBuffer: () => Promise.reject(new Error('no room')) }) as unknown as Blob;
  await page.putAside(given);
  expect(page.asides.isAside(given)).toBe(false);
  expect(given).toEqual(drawing());
});

test('what the browser has lost comes from elsewhere', async () => {
  const page = new Pages();
  const given = drawing();
  await page.putAside(given);
  Blob.prototype.arrayBuffer = () => Promise.reject(new Error('gone'));
  await expect(page.asides.toHand([given])).rejects.toThrow('gone');
  expect(page.asides.isAside(given)).toBe(true);
  page.asides.whenLost = ({ id }) => Promise.resolve(id === given.id ? drawing().marks : {});
  await page.asides.toHand([given]);
  expect(page.asides.isAside(given)).toBe(false);
  expect(given).toEqual(drawing());
});
