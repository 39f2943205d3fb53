/** A wash at contact: on which frames an effect lies over what is picked, and a tint laid there. */
import { findAll, randomId, shotOf, type Id, type Placement, type ShotDocument } from '@tallow/core/document';
import { contactsOf, layWash } from '@tallow/core/edit';
import { labelOfUse } from '@tallow/core/timing';
import { scaleLinear } from 'd3-scale';
import { area } from 'd3-shape';
import { useRef, useState } from 'react';
import { Fold, SelectRow, Small } from '../parts/panel.tsx';
import { Slider } from '../parts/slider.tsx';
import { goToShotFrame, useShotTime } from '../playback/shot-time.ts';
import { edit, say } from '../shot/document.ts';
import { usesOn, type Level } from '../tools/place/placing.ts';
import { besidePainter } from '../workers/painter-client.ts';

/** px across the picture that are looked at, and frames between two looks at whether to stop. */
const [ACROSS, AT_ONCE] = [240, 6] as const;
const SIZE = { width: 320, height: 64, foot: 14 } as const;
/** px across a letter of the frames' numbers. */
const LETTER = 6;

/** What was found, of which pair. */
interface Found {
  readonly thingId: Id;
  readonly effectId: Id;
  /** Frame of the shot the first share is of. */
  readonly from: number;
  readonly shares: readonly number[];
}

function Chart({ found: { from, shares } }: { found: Found }) {
  const frame = useShotTime((s) => s.frame);
  const x = scaleLinear([0, Math.max(1, shares.length)], [0, SIZE.width]);
  const y = scaleLinear([0, Math.max(0.01, ...shares)], [SIZE.height - SIZE.foot, 4]);
  const path = area<number>()
    .x((_, i) => x(i + 0.5))
    .y0(SIZE.height - SIZE.foot)
    .y1((share) => y(share))([...shares]);
  const contacts = contactsOf(shares);
  return (
    <svg
      width={SIZE.width}
      height={SIZE.height}
      className="my-1 block cursor-pointer select-none rounded-lg bg-soot-950"
      role="img"
      aria-label={`Touched on ${contacts.length} runs of frames`}
      data-testid="contact-chart"
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        goToShotFrame(from + Math.floor(x.invert(event.clientX - box.left)));
      }}
    >
      <path d={path ?? ''} fill="#ffc25c" fillOpacity={0.75} />
      {contacts.map((contact) => {
        const frames = `${from + contact.from + 1}–${from + contact.to + 1}`;
        return (
          <text
            key={contact.from}
            x={Math.min(x(contact.from) + 2, SIZE.width - 4 - frames.length * LETTER)}
            y={SIZE.height - 3}
            className="font-mono text-[10px]"
            fill="#a89987"
          >
            {frames}
          </text>
        );
      })}
      <rect
        x={x(frame - from)}
        y={0}
        width={Math.max(2, x(1))}
        height={SIZE.height}
        fill="#f4ecdf"
        fillOpacity={0.35}
      />
    </svg>
  );
}

/** The frames of the shot on which a use is seen. */
function framesOf(doc: ShotDocument, { start, lasts }: Placement): number[] {
  const { length } = shotOf(doc);
  const from = Math.max(0, start);
  const to = Math.min(length, lasts === null ? length : start + lasts);
  return Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i);
}

export function Wash({ level, placement }: { level: Level; placement: Placement }) {
  const [effectId, setEffect] = useState('');
  const [swatch, setSwatch] = useState('');
  const [max, setMax] = useState(60);
  const [found, setFound] = useState<Found | null>(null);
  const [done, setDone] = useState<number | null>(null);
  const stopped = useRef(false);
  const { doc } = level;
  const others = usesOn(level).filter((each) => each.placement.id !== placement.id);
  const swatches = findAll(doc, 'swatch', shotOf(doc).swatches);
  const colour = swatch || (swatches.find(({ role }) => role === 'light') ?? swatches[0])?.id || '';
  const shown = found?.thingId === placement.id && found.effectId === effectId ? found : null;
  const whyNot = effectId ? null : 'Choose what lies over it first.';
  const look = async (): Promise<void> => {
    const frames = framesOf(doc, placement);
    const shares: number[] = [];
    stopped.current = false;
    try {
      for (let i = 0; i < frames.length && !stopped.current; i += AT_ONCE) {
        setDone(i / frames.length);
        shares.push(...(await besidePainter().contact(placement.id, effectId, frames.slice(i, i + AT_ONCE), ACROSS)));
      }
    } catch (error) {
      say(`Looking stopped: ${error instanceof Error ? error.message : String(error)} Press “Find where” again.`);
      return;
    } finally {
      setDone(null);
    }
    if (stopped.current) return;
    setFound({ thingId: placement.id, effectId, from: frames[0] ?? 0, shares });
    if (contactsOf(shares).length === 0) say('They never touch.');
  };
  const lay = (): void => {
    if (!shown) return;
    // Told by frames since it began.
    const before = Array.from({ length: Math.max(0, shown.from - placement.start) }, () => 0);
    edit('wash at contact', (now) => layWash(now, placement.id, [...before, ...shown.shares], colour, max, randomId));
  };
  return (
    <Fold label="Wash where it is touched">
      <SelectRow
        label="Touched by"
        value={effectId}
        options={[
          { value: '', label: 'choose' },
          ...others.map((each) => ({ value: each.placement.id, label: labelOfUse(doc, each.placement) })),
        ]}
        onChoose={setEffect}
      />
      <div className="flex items-center gap-1.5 py-1">
        {done === null ? (
          <Small
            whyNot={whyNot}
            title="Looks at every frame of it"
            onClick={() => {
              void look();
            }}
          >
            Find where
          </Small>
        ) : (
          <>
            <Small
              onClick={() => {
                stopped.current = true;
              }}
            >
              Stop
            </Small>
            <progress aria-label="Frames looked at" value={done} className="h-1.5 flex-1" />
          </>
        )}
      </div>
      {shown ? (
        <>
          <Chart found={shown} />
          <SelectRow
            label="Takes on"
            value={colour}
            options={swatches.map(({ id, name }) => ({ value: id, label: name }))}
            onChoose={setSwatch}
          />
          <Slider label="At most" unit="%" min={1} max={100} value={max} onMove={setMax} />
          <Small
            title="A tint that comes in where they touch and is gone after: a look of this use, to be changed like any other"
            whyNot={contactsOf(shown.shares).length > 0 ? null : 'They never touch.'}
            onClick={lay}
          >
            Lay the wash
          </Small>
        </>
      ) : null}
    </Fold>
  );
}
