/** Where a plate lies, and how it is seen. */
import { findAll, shotOf, type Plate, type ShotDocument } from '@tallow/core/document';
import { layPlate, setPlate, setPlateCorners, type PlateSettings } from '@tallow/core/edit';
import { cornersOf } from '@tallow/core/geometry';
import { NumberField } from '../../parts/number-field.tsx';
import { Check, SelectRow } from '../../parts/panel.tsx';
import { Slider } from '../../parts/slider.tsx';
import { useIsHeld, takeTool } from '../../hand/tool-state.ts';
import { edit, endGesture } from '../../shot/document.ts';
import { wholeSpan } from '../../references/references.ts';
import { CutRows } from '../place/cut-rows.tsx';
import { PLATE } from './tool.ts';

const DEGREES = 180 / Math.PI;

/** Where a plate lies, as its list of places says it. */
function lies(doc: ShotDocument, plateId: string): string {
  const plane = findAll(doc, 'plane', shotOf(doc).planes).find(({ placements }) => placements.includes(plateId));
  if (!plane) return '';
  return `${plane.id} ${plane.placements[0] === plateId ? 'front' : 'back'}`;
}

export function Settings({ doc, plate }: { doc: ShotDocument; plate: Plate }) {
  const set = (name: string, settings: PlateSettings, gesture?: string): void => {
    edit(name, (doc) => setPlate(doc, plate.id, settings), gesture);
  };
  const slide = (name: string, settings: PlateSettings): void => {
    set(name, settings, `${name}-${plate.id}`);
  };
  const { span } = plate;
  const places = useIsHeld(PLATE);
  if (plate.locked)
    return <p className="py-2 text-[13px] text-wax-500">This picture is locked. Unlock it to change it.</p>;
  return (
    <>
      <Check
        label="Place it with the pen"
        title="A drag on the picture moves it, with Shift it turns, with Alt it scales"
        checked={places}
        onChange={(on) => {
          takeTool(on ? PLATE : null);
        }}
      />
      <Check
        label="On a tilted plane"
        title="Its four corners are moved one by one, as a picture on a table is seen"
        checked={plate.corners !== null}
        onChange={(on) => {
          const whole = { left: 0, top: 0, right: plate.width, bottom: plate.height };
          edit(on ? 'picture on a tilted plane' : 'picture flat', (d) =>
            setPlateCorners(d, plate.id, on ? cornersOf(whole) : null),
          );
          if (on) takeTool(PLATE);
        }}
      />
      <Slider
        label="Opacity"
        unit="%"
        min={0}
        max={100}
        value={Math.round(plate.opacity * 100)}
        onMove={(v) => {
          slide('fade picture', { opacity: v / 100 });
        }}
        onDone={endGesture}
      />
      <Slider
        label="Size"
        unit="%"
        min={1}
        max={400}
        value={Math.round(plate.scale * 1000) / 10}
        onMove={(v) => {
          slide('scale picture', { scale: Math.max(0.01, v / 100) });
        }}
        onDone={endGesture}
      />
      <Slider
        label="Turn"
        unit="°"
        min={-180}
        max={180}
        value={Math.round(plate.angle * DEGREES)}
        onMove={(v) => {
          slide('turn picture', { angle: v / DEGREES });
        }}
        onDone={endGesture}
      />
      <Slider
        label="Across"
        unit="px"
        min={-2000}
        max={6000}
        value={Math.round(plate.x)}
        onMove={(x) => {
          slide('move picture', { x });
        }}
        onDone={endGesture}
      />
      <Slider
        label="Down"
        unit="px"
        min={-2000}
        max={6000}
        value={Math.round(plate.y)}
        onMove={(y) => {
          slide('move picture', { y });
        }}
        onDone={endGesture}
      />
      <Check
        label="Guide: never taken away"
        title="Off, it is a still background, part of the picture and of the export"
        checked={plate.guide}
        onChange={(guide) => {
          set(guide ? 'picture as guide' : 'picture as background', { guide, ...(guide ? {} : { beside: false }) });
        }}
      />
      <SelectRow
        label="Lies"
        value={lies(doc, plate.id)}
        options={[
          { value: '', label: 'behind all planes' },
          ...findAll(doc, 'plane', shotOf(doc).planes).flatMap(({ id, name }) => [
            { value: `${id} front`, label: `on ${name}, in front` },
            { value: `${id} back`, label: `on ${name}, at the back` },
          ]),
        ]}
        onChoose={(value) => {
          const [planeId, end] = value.split(' ') as [string, 'front' | 'back'];
          edit('where a picture lies', (d) => layPlate(d, plate.id, planeId ? { planeId, end } : null));
        }}
      />
      {plate.guide ? null : (
        <CutRows
          doc={doc}
          id={plate.id}
          cut={plate.cut}
          onChange={(name, cut) => {
            set(name, { cut });
          }}
        />
      )}
      <Check
        label="Target: beside the picture"
        title="The wanted look, in view while drawing"
        checked={plate.beside}
        onChange={(beside) => {
          set(beside ? 'picture beside' : 'picture under', { beside, ...(beside ? { guide: true } : {}) });
        }}
      />
      <div className="flex h-9 items-center gap-2 text-[13px] text-wax-300">
        <Check
          label="Only on frames"
          checked={span !== null}
          onChange={(on) => {
            set(on ? 'picture on frames' : 'picture throughout', { span: on ? wholeSpan() : null });
          }}
        />
        {span ? (
          <span className="font-mono text-xs">
            {span.from + 1} to {span.from + span.length}
          </span>
        ) : null}
      </div>
      {span ? (
        <div className="grid grid-cols-2 gap-2 pb-2" key={`${span.from}-${span.length}`}>
          <NumberField
            label="First frame"
            value={span.from + 1}
            min={1}
            max={100_000}
            onTake={(v) => {
              set('picture on frames', { span: { ...span, from: v - 1 } });
            }}
          />
          <NumberField
            label="Last frame"
            value={span.from + span.length}
            min={span.from + 1}
            max={100_000}
            onTake={(v) => {
              set('picture on frames', { span: { ...span, length: v - span.from } });
            }}
          />
        </div>
      ) : null}
    </>
  );
}
