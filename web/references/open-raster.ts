/** OpenRaster files as the layers they hold: an open format of pictures in layers, a zip with `stack.xml` in it. */

import { unzipped } from './unzip.ts';

/** One layer: its picture, and where it lies in the whole. */
interface RasterLayer {
  readonly name: string;
  readonly picture: File;
  /** Where its top left corner is, px of the whole. */
  readonly x: number;
  readonly y: number;
  /** 0 to 1, that of the groups around it included. */
  readonly opacity: number;
  readonly visible: boolean;
}

export interface Raster {
  readonly width: number;
  readonly height: number;
  /** Topmost first. */
  readonly layers: readonly RasterLayer[];
}

const MAX_LAYERS = 200;

export const isOpenRaster = ({ name }: Pick<File, 'name'>): boolean => name.toLowerCase().endsWith('.ora');

/** Reads a file's layers, groups taken apart. @throws what is wrong with it, for the user. */
export async function readOpenRaster(file: File, signal: AbortSignal): Promise<Raster> {
  const unpacked = await unzipped(file, (name) => name === 'stack.xml' || /^data\/.*\.png$/i.test(name), signal);
  const entries = Object.fromEntries(unpacked.map(({ name, bytes }) => [name, bytes]));
  const stack = entries['stack.xml'];
  const xml = stack && new DOMParser().parseFromString(new TextDecoder().decode(stack), 'application/xml');
  const image = xml?.querySelector('image');
  const [width, height] = [Number(image?.getAttribute('w')), Number(image?.getAttribute('h'))];
  if (!image || !(width > 0) || !(height > 0)) throw new Error(`${file.name} holds no OpenRaster picture.`);
  const layers: RasterLayer[] = [];
  const walk = (group: Element, opacity: number, visible: boolean, dx: number, dy: number): void => {
    for (const each of group.children) {
      const number = (name: string, preset: number) => Number(each.getAttribute(name) ?? preset);
      const own = opacity * number('opacity', 1);
      const seen = visible && each.getAttribute('visibility') !== 'hidden';
      const [x, y] = [dx + number('x', 0), dy + number('y', 0)];
      if (each.tagName === 'stack') walk(each, own, seen, x, y);
      const source = each.tagName === 'layer' ? entries[each.getAttribute('src') ?? ''] : undefined;
      if (!source) continue;
      const name = each.getAttribute('name')?.slice(0, 80) ?? `Layer ${layers.length + 1}`;
      const picture = new File([source as Uint8Array<ArrayBuffer>], `${layers.length}.png`);
      layers.push({ name, picture, x, y, opacity: Math.min(1, Math.max(0, own)), visible: seen });
    }
  };
  for (const group of image.children) walk(group, 1, true, 0, 0);
  if (layers.length === 0) throw new Error(`There is no layer with a picture in ${file.name}.`);
  if (layers.length > MAX_LAYERS)
    throw new Error(`${file.name} has ${layers.length} layers; ${MAX_LAYERS} is the most.`);
  return { width, height, layers };
}
