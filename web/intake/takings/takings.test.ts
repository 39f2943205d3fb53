import { TAKINGS, takings } from './index.ts';
import type { Files } from '../taking.ts';

const file = (name: string, content = 'x'): File => new File([content], name);
const fitting = async (...files: File[]): Promise<string[]> => {
  const all = await Promise.all(
    takings().map(async (name) => ((await TAKINGS[name].fits(files as unknown as Files)) ? [name] : [])),
  );
  return all.flat();
};

test('every way is described', () => {
  for (const name of takings()) {
    const { label, says } = TAKINGS[name];
    expect(label).toMatch(/^[A-Z].{3,40}$/);
    expect(says).toMatch(/^[A-Z].{8,80}\.$/);
  }
});

test('what files can be taken for, the likeliest first', async () => {
  expect(await fitting(file('sign.svg'))).toEqual(['svgMarks', 'still']);
  expect(await fitting(file('wall.PNG'))).toEqual(['still', 'scans']);
  expect(await fitting(file('1.png'), file('2.png'))).toEqual(['sequence', 'stills', 'scans']);
  expect(await fitting(file('loop.gif', 'GIF89a NETSCAPE2.0'))).toEqual(['moving', 'still']);
  expect(await fitting(file('loop.png', '\x89PNG acTL'))).toEqual(['moving', 'still', 'scans']);
  expect(await fitting(file('plate.mov'))).toEqual(['film']);
  expect(await fitting(file('set.ora'))).toEqual(['rasterLayers']);
  expect(await fitting(file('all.zip'))).toEqual(['zipped', 'archive']);
  expect(await fitting(file('roar.wav'))).toEqual(['sound']);
  expect(await fitting(file('night.txt'))).toEqual(['palette', 'sheet']);
  expect(await fitting(file('times.csv'))).toEqual(['sheet']);
  expect(await fitting(file('what.bin'))).toEqual([]);
});
