/** A frame as SVG: its layers as groups, each of paths where paths can say it, else with a picture in its place. */
import { find, shotOf, type ShotDocument } from '../../document/index.ts';
import { paintsOf, type DrawItem } from '../../render/index.ts';
import type { ExportCrop } from '../export-settings.ts';
import { Defs, isPure, marksText } from './marks.ts';
import { matrixText, numberText, tag } from './markup.ts';

/** What paths cannot say of an item: a look, a matte, a clip, marks of rough or soft tips. */
function isPureItem(doc: ShotDocument, { drawing, look, wholes, cuts, group, within, ...item }: DrawItem): boolean {
  const paints = paintsOf(doc, item.layerId === '' ? { ...item, tint: null } : item);
  const isPlain = (each: { opacity: number; look: unknown } | null): boolean =>
    each === null || (each.opacity === 1 && each.look === null);
  return (
    item.asset === undefined &&
    look === null &&
    within === null &&
    cuts.length === 0 &&
    isPlain(group) &&
    wholes.every((whole) => isPlain(whole) && !whole.lights?.length && !whole.air && !whole.matte) &&
    Object.values(drawing.marks).every((mark) => isPure(mark, paints))
  );
}

/** What an item shows where paths cannot say it: a picture of the shot's size, as the data of a PNG, or null for nothing. */
export type Pictured = (item: DrawItem) => string | null;

/** CSS has another word for adding. */
const blendOf = ({ blend }: DrawItem): string | null =>
  blend === 'normal' ? null : `mix-blend-mode:${blend === 'lighter' ? 'plus-lighter' : blend}`;

function itemText(doc: ShotDocument, item: DrawItem, pictured: Pictured, defs: Defs): string {
  const { width, height } = shotOf(doc);
  const id = find(doc, 'layer', item.layerId)?.name ?? null;
  const style = blendOf(item);
  if (!isPureItem(doc, item)) {
    const href = pictured(item);
    return href ? tag('image', { href, width, height, style, 'data-name': id }) : '';
  }
  const marks = marksText(item.drawing, paintsOf(doc, item), defs);
  if (marks === '') return '';
  const opacity = item.opacity < 1 ? item.opacity : null;
  return tag('g', { 'data-name': id, transform: matrixText(item.matrix), opacity, style }, marks);
}

/** How an SVG is seen. */
interface SvgForm {
  /** px of the file for each px of the shot. */
  readonly scale: number;
  readonly background: boolean;
  readonly crop?: ExportCrop | null;
}

/** What an SVG begins and ends with. */
function documentText(doc: ShotDocument, { scale, background, crop }: SvgForm, content: string): string {
  const { width, height, background: colour, name } = shotOf(doc);
  const part = crop ?? { left: 0, top: 0, width, height };
  const ground = background && colour ? `${tag('rect', { width, height, fill: colour })}\n` : '';
  const head = {
    xmlns: 'http://www.w3.org/2000/svg',
    viewBox: `${part.left} ${part.top} ${part.width} ${part.height}`,
    width: numberText(part.width * scale),
    height: numberText(part.height * scale),
  };
  return `${tag('svg', head, `\n${tag('title', {}, name.replace(/[&<>]/g, ''))}\n${ground}${content}\n`)}\n`;
}

/** The items of a frame, lowest first, as groups. */
export const itemsText = (doc: ShotDocument, items: readonly DrawItem[], pictured: Pictured, defs: Defs): string =>
  items
    .map((item) => itemText(doc, item, pictured, defs))
    .filter((text) => text !== '')
    .join('\n');

const defsText = (defs: Defs): string => (defs.text === '' ? '' : `${tag('defs', {}, `\n${defs.text}\n`)}\n`);

/** A frame as one file. @param items those that lie in it, lowest first. */
export function frameSvg(
  doc: ShotDocument,
  items: readonly DrawItem[],
  { pictured, ...form }: SvgForm & { readonly pictured: Pictured },
): string {
  const defs = new Defs();
  const content = itemsText(doc, items, pictured, defs);
  return documentText(doc, form, defsText(defs) + content);
}

/** Frames that look alike and follow each other. */
export interface SvgSpan {
  readonly content: string;
  readonly frames: number;
}

/** When a picture is seen, as an animation of the group it is in. @param seen whether it is on each of the spans. */
function seenOn(spans: readonly SvgSpan[], seen: (span: SvgSpan) => boolean, rate: number): string {
  const all = spans.reduce((sum, { frames }) => sum + frames, 0);
  const [times, values]: [number[], string[]] = [[], []];
  let at = 0;
  for (const span of spans) {
    const value = seen(span) ? 'visible' : 'hidden';
    if (values.at(-1) !== value) {
      times.push(at / all);
      values.push(value);
    }
    at += span.frames;
  }
  if (values.length === 1) return '';
  return tag('animate', {
    attributeName: 'visibility',
    calcMode: 'discrete',
    dur: `${numberText(all / rate)}s`,
    repeatCount: 'indefinite',
    keyTimes: times.map((time) => String(+time.toPrecision(9))).join(';'),
    values: values.join(';'),
  });
}

/** An SVG that moves: each picture is there once and seen on its frames, round and round. */
export function movingSvg(doc: ShotDocument, spans: readonly SvgSpan[], defs: Defs, form: SvgForm): string {
  const pictures = [...new Set(spans.map(({ content }) => content))];
  // Where nothing moves it, as in print, the first one is seen.
  const groups = pictures.map((content, i) =>
    tag(
      'g',
      { visibility: i === 0 ? null : 'hidden' },
      `\n${content}\n${seenOn(spans, (span) => span.content === content, shotOf(doc).rate)}`,
    ),
  );
  return documentText(doc, form, `${defsText(defs)}${groups.join('\n')}`);
}
