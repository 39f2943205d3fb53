/** The element in other swatches: kept as named recolourings that are switched, never touching what was drawn. */
import { randomId, type Swatch } from '@tallow/core/document';
import { addRecolour, addSwatch, dropRecolour, seeRecolour, setRecolour, swatchesOn } from '@tallow/core/edit';
import { shifted } from '@tallow/core/colour';
import { Plus, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { NameField } from '../parts/name-field.tsx';
import { Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import type { Current } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { Select } from '../parts/select.tsx';

const CHIP = 'moves h-8 rounded-lg px-2.5 text-[13px]';

export function RecolourSettings({ now, swatches }: { now: Current; swatches: readonly Swatch[] }) {
  const { element, doc } = now;
  const [hue, setHue] = useState(180);
  const [naming, setNaming] = useState(false);
  const used = useMemo(() => swatchesOn(doc, element.id), [doc, element.id]);
  const shown = element.recolours.find(({ id }) => id === element.recolour);
  const make = (): void => {
    edit('recolour element', (each) => {
      let next = each;
      const map: Record<string, string> = {};
      for (const { id, name, role, colour, gradient } of used) {
        // A gradient turns as its ends do.
        if (gradient) continue;
        const turned = shifted(colour, { hue, chroma: 1, lightness: 0 });
        const made = addSwatch(
          next,
          { name: `${name.slice(0, 180).toWellFormed()} ${hue}°`, role, colour: turned },
          randomId,
        );
        next = made.doc;
        map[id] = made.swatchId;
      }
      return addRecolour(next, element.id, `turned ${hue}°`, map, randomId).doc;
    });
  };
  return (
    <div data-testid="recolour">
      <h3 className="font-name pb-1 text-[15px]">{element.name} in other swatches</h3>
      <div className="flex flex-wrap items-center gap-1.5" role="group" aria-label="Recolourings">
        {[{ id: null, name: 'its own' }, ...element.recolours].map(({ id, name }) => (
          <button
            key={id ?? 'own'}
            type="button"
            aria-pressed={element.recolour === id}
            className={`${CHIP} ${element.recolour === id ? 'bg-flame-deep text-flame' : 'bg-soot-800 text-wax-300 hover:bg-soot-700'}`}
            onClick={() => {
              edit(id ? `see as ${name}` : 'see in its own swatches', (each) => seeRecolour(each, element.id, id));
            }}
            onDoubleClick={() => {
              if (id) setNaming(true);
            }}
          >
            {name}
          </button>
        ))}
      </div>
      {shown ? (
        <>
          <div className="flex items-center gap-1.5 pt-1">
            {naming ? (
              <NameField
                label="Name of the recolouring"
                value={shown.name}
                onDone={(name) => {
                  setNaming(false);
                  if (name && name !== shown.name)
                    edit('name recolouring', (each) => setRecolour(each, element.id, shown.id, { name }));
                }}
              />
            ) : (
              <Small
                onClick={() => {
                  setNaming(true);
                }}
              >
                Rename
              </Small>
            )}
            <Small
              title="Let this recolouring go"
              onClick={() => {
                edit('let recolouring go', (each) => dropRecolour(each, element.id, shown.id));
              }}
            >
              <Trash2 size={14} />
            </Small>
          </div>
          {used.map((swatch) => (
            <label key={swatch.id} className="flex h-8 items-center gap-2 text-[13px] text-wax-300">
              <span className="size-4 shrink-0 rounded" style={{ background: swatch.colour }} />
              <span className="w-[104px] shrink-0 truncate">{swatch.name}</span>
              <Select
                label={`${swatch.name} is seen as`}
                className="h-7 min-w-0 flex-1 rounded-md bg-soot-800 px-1.5 text-[13px]"
                value={shown.map[swatch.id] ?? swatch.id}
                options={swatches.map(({ id, name }) => ({ value: id, label: id === swatch.id ? 'itself' : name }))}
                onChoose={(to) => {
                  edit('recolour', (each) => setRecolour(each, element.id, shown.id, { from: swatch.id, to }));
                }}
              />
              <span
                className="size-4 shrink-0 rounded"
                style={{ background: swatches.find(({ id }) => id === shown.map[swatch.id])?.colour ?? swatch.colour }}
              />
            </label>
          ))}
        </>
      ) : (
        <>
          <Slider label="Hue turned by" value={hue} min={-180} max={180} unit="°" onMove={setHue} />
          <Small
            title="New swatches beside the ones it has; nothing drawn is touched"
            whyNot={used.length > 0 ? null : 'Nothing is drawn on this element yet.'}
            onClick={make}
          >
            <Plus size={14} /> Keep it in turned colours
          </Small>
        </>
      )}
    </div>
  );
}
