import { zipSync } from 'fflate';
import { seededRandom } from '@tallow/core/geometry';
import { damaged, damagedCount } from '../../server/test/damage.ts';
import { unzipped } from './unzip.ts';

const zip = (files: Parameters<typeof zipSync>[0], level: 0 | 6 = 6): File =>
  new File([zipSync(files, { level }) as Uint8Array<ArrayBuffer>], 'some.zip');
const never = new AbortController().signal;
const all = (): boolean => true;

test('what is wanted comes, packed or not, larger than a part', async () => {
  const large = Uint8Array.from({ length: 3_000_000 }, (_, i) => (i * 2654435761) >>> 24);
  const came = await unzipped(
    zip({ 'a.png': large, 'b.txt': new Uint8Array(4) }),
    (name) => name.endsWith('.png'),
    never,
  );
  expect(came.map(({ name }) => name)).toEqual(['a.png']);
  expect(Buffer.from(came[0]!.bytes).equals(Buffer.from(large))).toBe(true);
  expect(await unzipped(zip({ 'a.png': large }, 0), all, never)).toHaveLength(1);
});

test('one that unpacks to far more than it is is told, not waited for', async () => {
  const bomb = zip({ 'a.png': new Uint8Array(70 * 1024 * 1024) });
  expect(bomb.size).toBeLessThan(1e6);
  await expect(unzipped(bomb, all, never)).rejects.toThrow('some.zip holds a.png of more than 64 MB.');
  const many = zip(Object.fromEntries(Array.from({ length: 4001 }, (_, i) => [`${i}.png`, new Uint8Array(1)])));
  await expect(unzipped(many, all, never)).rejects.toThrow('more than 4000 files');
});

test('a damaged one is told, and one that is stopped ends', async () => {
  const whole = zipSync({ 'a.png': Uint8Array.from({ length: 9000 }, (_, i) => (i * 7919) & 255) });
  whole.fill(255, 60, 400);
  await expect(unzipped(new File([whole as Uint8Array<ArrayBuffer>], 'bad.zip'), all, never)).rejects.toThrow(
    'bad.zip',
  );
  const stopped = AbortSignal.abort();
  await expect(unzipped(zip({ 'a.png': new Uint8Array(9) }), all, stopped)).rejects.toThrow(/abort/i);
});

test('a name that is not said to be UTF-8 is no damage', async () => {
  const whole = Buffer.from(zipSync({ 'a?.png': new Uint8Array(50) }));
  for (let at = whole.indexOf('a?.png'); at >= 0; at = whole.indexOf('a?.png', at)) whole[at + 1] = 0xe4;
  const came = await unzipped(new File([new Uint8Array(whole)], 'old.zip'), all, never);
  expect(came.map(({ name }) => name)).toEqual(['a\u00e4.png']);
});

const DAMAGED = damagedCount(120);
test(`${DAMAGED} damaged in other ways: none passes as another than it was, and none is waited for`, async () => {
  const text = new TextEncoder().encode('<image w="64" h="48"><stack><layer src="data/0.png"/></stack></image>');
  const picture = Uint8Array.from({ length: 9000 }, (_, i) => (i * 7919) & 255);
  const files = { 'stack.xml': text, 'data/0.png': picture, 'data/1.png': [picture, { level: 0 }] } as const;
  const whole = Buffer.from(zipSync(files as unknown as Parameters<typeof zipSync>[0]));
  const random = seededRandom(23);
  let refused = 0;
  for (let i = 0; i < DAMAGED; i++) {
    const content = damaged(whole, random, i);
    const came = await unzipped(new File([new Uint8Array(content)], 'bad.zip'), all, never).catch((error: unknown) => {
      expect((error as Error).message).toMatch(/^bad\.zip .+\.$/);
      refused += 1;
      return [];
    });
    // A name that was damaged is another name; what is in it is what it was.
    for (const { bytes } of came) {
      const is = [text, picture].some((each) => Buffer.from(each).equals(Buffer.from(bytes)));
      expect(is).toBe(true);
    }
  }
  expect(refused).toBeGreaterThan(DAMAGED / 2);
});
