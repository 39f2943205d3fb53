import { newShotDocument, shotOf, type Mark } from '../../document/index.ts';
import { discRing, seededIds } from '../../geometry/index.ts';
import { Defs, isPure, marksText } from './marks.ts';
import { movingSvg } from './frame.ts';

const newId = seededIds(7);
const columns = (n: number, of: (i: number) => number) => Float32Array.from({ length: n }, (_, i) => of(i));
const stroke = (pressure: boolean, more: Partial<Extract<Mark, { kind: 'stroke' }>> = {}): Mark => ({
  kind: 'stroke',
  id: newId(),
  swatch: 'a',
  brush: { kind: 'ink', width: 12, opacity: 1, pressure },
  seed: 1,
  samples: {
    x: columns(5, (i) => i * 20),
    y: columns(5, (i) => (i % 2) * 9),
    pressure: columns(5, (i) => 0.2 + 0.15 * i),
    altitude: columns(5, () => 1.5),
    azimuth: columns(5, () => 0),
  },
  ...more,
});
const disc: Mark = {
  kind: 'shape',
  id: newId(),
  swatch: 'a',
  rings: [discRing(10, 20, 30)],
  rule: 'evenodd',
  opacity: 0.5,
};
const drawing = (...marks: Mark[]) => ({
  order: marks.map(({ id }) => id),
  marks: Object.fromEntries(marks.map((mark) => [mark.id, mark])),
});
const red = () => '#c02010';

test('a shape is its curves, a line of one width is stroked, one that swells is its outline', () => {
  const text = marksText(drawing(disc, stroke(false), stroke(true)), red, new Defs());
  const [shape, line, outline] = text.split('\n');
  expect(shape).toMatch(/^<path d="M40 20C.*Z" fill="#c02010" fill-rule="evenodd" opacity="0.5"\/>$/);
  expect(line).toMatch(/^<path d="M0 0L.*80 0" fill="none" stroke="#c02010" stroke-width="12"/);
  expect(outline).toMatch(/^<path d="M.*A.*Z" fill="#c02010"\/>$/);
  expect(text).not.toMatch(/NaN|undefined|\de-/);
});

test('what goes behind is lowest, what is not seen is left out', () => {
  const behind = { ...disc, id: newId(), lays: 'behind' } as Mark;
  const text = marksText(drawing(stroke(false), behind, stroke(false, { unseen: true })), red, new Defs());
  expect(text.split('\n')).toHaveLength(2);
  expect(text).toMatch(/^<path d="M40 20C/);
});

test('what paths cannot say is told', () => {
  const rub = { kind: 'rub', id: newId(), brush: { kind: 'ink', width: 9, opacity: 1, pressure: true }, seed: 1 };
  expect(isPure({ ...rub, samples: (stroke(true) as Extract<Mark, { kind: 'stroke' }>).samples } as Mark, red)).toBe(
    false,
  );
  expect(isPure(stroke(true, { brush: { kind: 'pencil', width: 9, opacity: 1, pressure: true } }), red)).toBe(false);
  expect(isPure({ ...disc, lays: 'inside' } as Mark, red)).toBe(false);
  expect(isPure(disc, red)).toBe(true);
});

test('a gradient is defined once for all that share it', () => {
  const defs = new Defs();
  const paint = {
    form: 'linear',
    own: false,
    from: { x: 0, y: 0 },
    to: { x: 100, y: 0 },
    stops: [
      { at: 0, colour: '#000000' },
      { at: 1, colour: '#ffffff' },
    ],
    plain: '#888888',
  } as const;
  const text = marksText(drawing(disc, { ...disc, id: newId() } as Mark), () => paint, defs);
  expect(text.match(/url\(#d1\)/g)).toHaveLength(2);
  expect(defs.text.match(/<linearGradient/g)).toHaveLength(1);
});

test('one that moves shows each picture on its frames and keeps those that are alike once', () => {
  const format = { name: 'A < B', width: 64, height: 36, rate: 12, length: 8, background: '#000000' };
  const doc = newShotDocument(newId(), format, newId);
  const spans = [
    { content: '<path d="M0 0"/>', frames: 2 },
    { content: '<path d="M1 1"/>', frames: 4 },
    { content: '<path d="M0 0"/>', frames: 2 },
  ];
  const text = movingSvg(doc, spans, new Defs(), { scale: 2, background: true });
  expect(text.match(/<path /g)).toHaveLength(2);
  expect(text).toContain('width="128" height="72"');
  expect(text).toContain('dur="0.667s"');
  expect(text).toContain('keyTimes="0;0.25;0.75" values="visible;hidden;visible"');
  expect(text).toContain('keyTimes="0;0.25;0.75" values="hidden;visible;hidden"');
  expect(text).toContain(`<rect width="64" height="36" fill="${shotOf(doc).background!}"/>`);
  expect(text).not.toContain('A < B');
});
