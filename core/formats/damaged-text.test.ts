/** Texts from outside, damaged in 500 ways each: read or refused in words, and never for long. */
import { seededRandom } from '../geometry/index.ts';
import { paletteCss, paletteText, readPalette, readSheet, readSvg, NoSvg, type SvgNode } from './index.ts';

const DAMAGED = 500;

const SWATCHES = [
  { name: 'Flame', role: 'body', colour: '#ff8a2b' },
  { name: 'Ember edge', role: 'outline', colour: '#b3321c' },
] as const;
const SHEET = 'frame,Body,Line\n1,1,1\n2,,\n3,2,\n4,x,2\n';
const JUNK = [
  '\u0000',
  '"',
  ',',
  '\n',
  '--a: #fff; /*',
  ' '.repeat(4000),
  '9'.repeat(300),
  '\ud800',
  'é',
  '#',
] as const;

function damaged(text: string, random: () => number, nth: number): string {
  const place = Math.floor(random() * text.length);
  const other = Math.floor(random() * text.length);
  switch (nth % 4) {
    case 0:
      return text.slice(0, place);
    case 1:
      return text.slice(0, place) + JUNK[Math.floor(random() * JUNK.length)]! + text.slice(place);
    case 2:
      return text.slice(0, place) + text.slice(other);
    default:
      return text.slice(0, place) + String.fromCharCode(Math.floor(random() * 0x2100)) + text.slice(place + 1);
  }
}

function each(text: string, read: (text: string) => { ok: unknown } | { problem: string }): void {
  const random = seededRandom(23);
  for (let i = 0; i < DAMAGED; i++) {
    const came = read(damaged(text, random, i));
    if ('problem' in came) expect(came.problem).toMatch(/^\S.{5,}/s);
  }
}

test('palettes: what is read has names, roles and colours', () => {
  for (const text of [paletteText(SWATCHES), paletteCss(SWATCHES)])
    each(text, (damage) => {
      const read = readPalette(damage);
      if ('ok' in read)
        for (const { name, colour } of read.ok) {
          expect(name.trim().length).toBeGreaterThan(0);
          expect(colour).toMatch(/^#[0-9a-f]{6}$/);
        }
      return read;
    });
});

test('sheets', () => {
  each(SHEET, readSheet);
});

test('SVG: what is read are numbers that can be drawn', () => {
  const svg = (d: string, transform: string): SvgNode => ({
    name: 'svg',
    attributes: { viewBox: '0 0 640 360', width: '640', height: '360' },
    children: [
      {
        name: 'g',
        attributes: { id: 'glow', transform },
        children: [
          {
            name: 'path',
            attributes: { d, fill: '#e4551b', stroke: '#101010', 'stroke-width': '4' },
            children: [],
            text: '',
          },
        ],
        text: '',
      },
    ],
    text: '',
  });
  const [path, transform] = [
    'M10 10C20 20 40 20 50 10A30 50 30 0 1 162 163Zm5 5l30 0',
    'translate(30 40) rotate(20) scale(2)',
  ];
  each(`${path}|${transform}`, (damage) => {
    const [d = '', moved = ''] = damage.split('|');
    try {
      const read = readSvg(svg(d, moved));
      for (const { marks } of read.layers)
        for (const mark of marks)
          for (const numbers of mark.kind === 'shape' ? mark.rings : [mark.samples.x, mark.samples.y])
            expect(numbers.every(Number.isFinite)).toBe(true);
      return { ok: read };
    } catch (error) {
      if (error instanceof NoSvg) return { problem: error.message };
      throw error;
    }
  });
});
