/** Looks of the active layer, of its folder, or of its element as a whole: a list that is worked out in its order and never touches what is drawn. */
import { randomId, type LookKind } from '@tallow/core/document';
import { addLook, copyLooks, newLook } from '@tallow/core/edit';
import { LOOKS, lookKinds } from '@tallow/core/looks';
import { ClipboardPaste } from 'lucide-react';
import { Words } from '../parts/choice.tsx';
import { Check, Line, Panel, Small } from '../parts/panel.tsx';
import { useCurrent } from '../selection/current.ts';
import { setShowing, useShowing } from '../picture/showing.ts';
import { edit } from '../shot/document.ts';
import { fittedForLook } from '../palette/fit-axis.ts';
import { AddLook } from './add-look.tsx';
import { setLooks, useLooks } from './look-panel.ts';
import { showPanel } from '../screen/panels.ts';
import { LookCard } from './look-card.tsx';

/** Looks that stand ready where there are none yet. */
const FIRST = 4;

export function LayerLooksPanel() {
  const now = useCurrent();
  const looks = useShowing((s) => s.looks);
  const finished = useShowing((s) => s.finished);
  const { of: wanted, open, copied } = useLooks();
  const folder = now?.active?.folder;
  const of = wanted === 'folder' && !folder ? 'layer' : wanted;
  const owner = { layer: now?.active?.layer, folder, element: now?.element }[of];
  if (!now || !owner) return null;
  // Lines take their colour from fills, which a folder or an element as a whole does not lie on.
  const kinds = lookKinds().filter((kind) => of === 'layer' || !LOOKS[kind].forLayers);
  const add = (kind: LookKind): void => {
    const look = newLook(now.doc, kind, randomId, 1 + owner.finishes.length);
    edit(`add ${LOOKS[kind].name.toLowerCase()}`, (doc) => fittedForLook(addLook(doc, owner.id, look), owner.id, look));
    setLooks({ open: look.id });
  };
  const paste = (): void => {
    edit('paste looks', (doc) => copyLooks(doc, copied, owner.id, randomId));
  };
  const missing = copied.some(({ swatch }) => swatch !== null && !now.doc.entities[swatch]);
  return (
    <Panel
      label="Looks"
      testId="looks-panel"
      heading="Looks"
      onBack={() => {
        showPanel(null);
      }}
    >
      <div className="flex items-center justify-between">
        <Words
          label="Whose looks"
          value={of}
          choices={[
            {
              value: 'layer',
              label: now.active?.layer.name.slice(0, folder ? 12 : 18) ?? 'layer',
              tip: 'Of this layer',
            },
            ...(folder
              ? [
                  {
                    value: 'folder' as const,
                    label: folder.name.slice(0, 12),
                    tip: 'Of the layers in its folder put together',
                  },
                ]
              : []),
            { value: 'element', label: folder ? 'element' : 'whole element', tip: 'Of all its layers put together' },
          ]}
          onChoose={(value) => {
            setLooks({ of: value, open: null });
          }}
        />
        <AddLook kinds={kinds} onAdd={add} />
      </div>
      {owner.finishes.length === 0 ? (
        <>
          <div className="flex flex-wrap gap-1 pt-1">
            {kinds.slice(0, FIRST).map((kind) => (
              <Small
                key={kind}
                title={LOOKS[kind].does}
                onClick={() => {
                  add(kind);
                }}
              >
                {LOOKS[kind].name}
              </Small>
            ))}
          </div>
          <p className="py-2 text-[13px] text-wax-500">
            Glow, tint, blur, waver, texture and more: they change how{' '}
            {{ layer: 'this layer', folder: 'the folder', element: 'the whole element' }[of]} is seen, on every drawing,
            and can be taken away again.
          </p>
        </>
      ) : (
        owner.finishes.map((look, i) => (
          <LookCard
            key={look.id}
            now={now}
            ownerId={owner.id}
            look={look}
            index={i}
            count={owner.finishes.length}
            open={open === look.id}
          />
        ))
      )}
      <div className="flex flex-wrap gap-1.5 py-1">
        <Small
          title="All of this list, to be pasted elsewhere"
          whyNot={owner.finishes.length > 0 ? null : 'There is nothing to copy.'}
          onClick={() => {
            setLooks({ copied: owner.finishes });
          }}
        >
          Copy all
        </Small>
        <Small
          title="Looks that were copied, at the end of this list"
          whyNot={
            copied.length === 0
              ? 'Copy looks of a layer or an element first.'
              : missing
                ? 'Their colours belong to another shot.'
                : null
          }
          onClick={paste}
        >
          <ClipboardPaste size={14} /> Paste {copied.length > 0 ? copied.length : ''}
        </Small>
      </div>
      <Line />
      <Check
        label="See looks while drawing"
        title="What moves outlines, and looks of the whole element or of the folder that is drawn in, wait for playing and for the finished look"
        checked={looks}
        onChange={(on) => {
          setShowing({ looks: on });
        }}
      />
      <Check
        label="Finished look"
        title="What will be taken away: all looks, no guides, nothing that is for work"
        checked={finished}
        onChange={(on) => {
          setShowing({ finished: on });
        }}
      />
    </Panel>
  );
}
