/** SVG as marks: paths become shapes and strokes, groups layers of a new element. */
import { randomId } from '@tallow/core/document';
import { addBrought } from '@tallow/core/edit';
import { NoSvg, readSvg, type SvgNode } from '@tallow/core/formats';
import { shotFrameNow } from '../../playback/shot-time.ts';
import { setSelection } from '../../selection/selection.ts';
import { edit, say } from '../../shot/document.ts';
import { called, stemOf, type Taking } from '../taking.ts';

const LARGEST = 20 * 1024 * 1024;
const SVG = 'http://www.w3.org/2000/svg';
/** Deeper ones are refused by whoever reads the tree. */
const DEEPEST = 120;

/** The tree of an element of a document, what is not of SVG left out. */
function treeOf(element: Element, depth = 0): SvgNode {
  const attributes = Object.fromEntries([...element.attributes].map(({ localName, value }) => [localName, value]));
  const own = depth < DEEPEST ? [...element.children].filter(({ namespaceURI }) => namespaceURI === SVG) : [];
  return {
    name: element.localName,
    attributes,
    children: own.map((each) => treeOf(each, depth + 1)),
    text: element.localName === 'style' ? element.textContent : '',
  };
}

export const svgMarks: Taking = {
  label: 'Marks',
  says: 'Paths become shapes and strokes, groups layers.',
  fits: (files) => files.length === 1 && called(files, 'svg'),
  bring: async ([file]) => {
    if (file.size > LARGEST) throw new Error(`${file.name} has more than 20 MB; that is the most.`);
    const { documentElement: root } = new DOMParser().parseFromString(await file.text(), 'image/svg+xml');
    if (root.querySelector('parsererror') ?? root.localName !== 'svg')
      throw new Error(`${file.name} is broken or no SVG.`);
    let read: ReturnType<typeof readSvg>;
    try {
      read = readSvg(treeOf(root));
    } catch (error) {
      if (error instanceof NoSvg) throw new Error(`${file.name}: ${error.message}`);
      throw error;
    }
    let elementId = '';
    edit('bring in marks', (doc) => {
      const added = addBrought(doc, stemOf(file, 'Drawing'), read, shotFrameNow(), randomId);
      elementId = added.elementId;
      return added.doc;
    });
    setSelection({ elementId, layerId: null, place: null, frame: 0 });
    const count = read.layers.reduce((sum, { marks }) => sum + marks.length, 0);
    const left = read.left.length > 0 ? ` Left out: ${read.left.join(', ')}.` : '';
    say(`${count} marks on ${read.layers.length === 1 ? 'a layer' : `${read.layers.length} layers`} came in.${left}`);
  },
};
