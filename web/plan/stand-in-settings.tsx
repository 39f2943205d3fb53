/** The settings of a path's stand-in. */
import type { Path } from '@tallow/core/document';
import { Slider } from '../parts/slider.tsx';
import { endGesture, say } from '../shot/document.ts';
import { changePath } from './path-edits.ts';
import { takePlanTool } from './plan.ts';
import { Words } from '../parts/choice.tsx';
import { Check, Heading } from '../parts/panel.tsx';

export function StandInSettings({ path }: { path: Path }) {
  const { standIn } = path;
  const change = (settings: Partial<Path['standIn']>, gesture?: string): void => {
    changePath(path, 'stand-in', { standIn: { ...standIn, ...settings } }, gesture);
  };
  const slide = (
    key: 'sizeStart' | 'sizeEnd' | 'aspect' | 'stretch' | 'angle' | 'opacityStart' | 'opacityEnd',
    factor = 1,
  ) => ({
    value: standIn[key] * factor,
    onMove: (value: number) => {
      change({ [key]: value / factor }, `stand-in-${path.id}-${key}`);
    },
    onDone: () => {
      endGesture();
    },
  });
  return (
    <>
      <Heading
        aside={
          <Words
            label="Form of the stand-in"
            value={standIn.form}
            choices={[
              { value: 'disc', label: 'Disc' },
              { value: 'ellipse', label: 'Ellipse' },
              { value: 'shape', label: 'Drawn', tip: 'Draw its outline in the picture' },
            ]}
            onChoose={(form) => {
              if (form === 'shape') {
                takePlanTool('form');
                say('Draw the outline of the stand-in in the picture.');
              }
              if (form !== 'shape' || standIn.shape) change({ form });
            }}
          />
        }
      >
        Stand-in
      </Heading>
      <Slider label="Size, start" unit="px" min={4} max={600} {...slide('sizeStart')} />
      <Slider label="Size, end" unit="px" min={4} max={600} {...slide('sizeEnd')} />
      <Check
        label="Near fast, far slow: spacing follows size"
        checked={path.perspective}
        onChange={(perspective) => {
          changePath(path, 'spacing by size', { perspective });
        }}
      />
      <Slider label="Stretch by speed" unit="%" min={0} max={100} {...slide('stretch', 100)} />
      {standIn.form === 'ellipse' ? (
        <Slider label="Width" unit="%" min={5} max={100} {...slide('aspect', 100)} />
      ) : null}
      {standIn.form === 'disc' ? null : (
        <>
          <Slider label="Turned by" unit="°" min={-180} max={180} {...slide('angle', 180 / Math.PI)} />
          <Check
            label="Turns along the path"
            checked={standIn.turn === 'along'}
            onChange={(on) => {
              change({ turn: on ? 'along' : 'fixed' });
            }}
          />
        </>
      )}
      <Slider label="Opacity, start" unit="%" min={0} max={100} {...slide('opacityStart', 100)} />
      <Slider label="Opacity, end" unit="%" min={0} max={100} {...slide('opacityEnd', 100)} />
    </>
  );
}
