/** Whether what is taken away lies on the shot's background, and what is to be known where it does not. */
import type { Shot, ShotDocument } from '@tallow/core/document';
import { brighteningLayers, EXPORT_FORMATS, type ExportSettings } from '@tallow/core/formats';
import { Choice } from '../parts/choice.tsx';

interface GroundProps {
  readonly shot: Shot;
  readonly settings: ExportSettings;
  readonly set: (more: Partial<ExportSettings>) => void;
}

export function Ground({ shot, settings: { format, parts, background }, set }: GroundProps) {
  const { label, alphas } = EXPORT_FORMATS[format];
  const isOpaque = alphas.length === 0;
  const isBare = shot.background === null;
  return (
    <Choice
      label="Background"
      value={background ? 'with' : 'without'}
      choices={[
        {
          value: 'without',
          label: 'Transparent',
          whyNot: isOpaque ? `${label} cannot be seen through.` : null,
        },
        {
          value: 'with',
          label: isOpaque && isBare ? 'On a dark ground' : 'With the background colour',
          whyNot:
            isBare && !isOpaque
              ? 'This shot has no background colour.'
              : parts !== 'picture'
                ? 'Single layers and elements are always transparent.'
                : null,
        },
      ]}
      onChoose={(next) => {
        set({ background: next === 'with' });
      }}
    />
  );
}

/** Said where layers work by what lies under them, and nothing will. */
export function BrightNote({ doc }: { doc: ShotDocument }) {
  const bright = brighteningLayers(doc);
  if (bright.length === 0) return null;
  return (
    <p className="text-[13px] text-warn">
      {bright.map((name) => `“${name}”`).join(', ')} {bright.length === 1 ? 'brightens' : 'brighten'} what lies under
      it. On a transparent background it will look different over other footage.
    </p>
  );
}
