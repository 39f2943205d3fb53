/** Layers that Tallow lays by itself: where they are empty nothing is missing, and it is nobody's to draw. */
import { entitiesOf, type Id, type ShotDocument } from '../document/index.ts';
import { isByTone } from './tones.ts';

/** Whether a layer is what smears lay behind their subject. */
const isBehindBySmear = (doc: ShotDocument, layerId: Id): boolean =>
  entitiesOf(doc, 'smear').some(({ behindId }) => behindId === layerId);

/** Whether all of a layer is laid by itself: tone, and what smears lay behind. */
export const isLaidByItself = (doc: ShotDocument, layerId: Id): boolean =>
  isByTone(doc, layerId) || isBehindBySmear(doc, layerId);
