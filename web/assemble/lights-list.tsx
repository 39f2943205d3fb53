/** The lights of a use or of a plane, each picked by a press, and one more. */
import { addLightOf, addLightOn, whyNotLight } from '@tallow/core/edit';
import { findAll, randomId, shotOf, type Id, type Light, type ShotDocument } from '@tallow/core/document';
import { Flame, Plus } from 'lucide-react';
import { Small } from '../parts/panel.tsx';
import { edit } from '../shot/document.ts';
import { selectLight } from '../tools/place/placing.ts';

/** What a light is to shine from. */
type LightSource = { readonly placementId: Id } | { readonly planeId: Id };

/** Adds a light and picks it. */
export function addLight(source: LightSource): void {
  let made: Id | null = null;
  edit('light', (doc) => {
    const { width, height } = shotOf(doc);
    const added =
      'placementId' in source
        ? addLightOf(doc, source.placementId, randomId)
        : addLightOn(doc, source.planeId, { x: width / 2, y: height / 2 }, randomId);
    made = added.lightId;
    return added.doc;
  });
  if (made) selectLight(made);
}

export function LightsList({
  doc,
  source,
  whyNot,
}: {
  doc: ShotDocument;
  source: LightSource;
  whyNot?: string | null;
}) {
  const isOf = (light: Light): boolean =>
    'placementId' in source ? light.sourceId === source.placementId : light.planeId === source.planeId;
  const lights = findAll(doc, 'light', shotOf(doc).lights).filter(isOf);
  return (
    <div className="flex flex-wrap gap-1.5 py-1">
      {lights.map(({ id, name, visible }) => (
        <Small
          key={id}
          title={`${name}: its settings`}
          onClick={() => {
            selectLight(id);
          }}
        >
          <Flame size={14} className={visible ? 'text-flame' : 'text-wax-500'} /> {name}
        </Small>
      ))}
      <Small
        title={
          'placementId' in source
            ? 'It follows this use, and flickers with what is drawn'
            : 'It stands in the middle, at the depth of the plane'
        }
        whyNot={whyNot ?? whyNotLight(doc)}
        onClick={() => {
          addLight(source);
        }}
      >
        <Plus size={14} /> {'placementId' in source ? 'Light from it' : 'Light on it'}
      </Small>
    </div>
  );
}
