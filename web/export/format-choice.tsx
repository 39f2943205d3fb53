/** In which format: what it is to serve first, then how. */
import {
  EXPORT_FAMILIES,
  EXPORT_FORMATS,
  formatsOf,
  type ExportFamily,
  type ExportFormatName,
} from '@tallow/core/formats';
import { Choice } from '../parts/choice.tsx';

const FAMILIES = Object.keys(EXPORT_FAMILIES) as ExportFamily[];

export function FormatChoice({
  format,
  onChoose,
}: {
  format: ExportFormatName;
  onChoose: (format: ExportFormatName) => void;
}) {
  const { family, says } = EXPORT_FORMATS[format];
  return (
    <div className="space-y-1">
      <Choice
        label="What for"
        value={family}
        choices={FAMILIES.map((value) => ({ value, label: EXPORT_FAMILIES[value] }))}
        onChoose={(next) => {
          onChoose(formatsOf(next)[0]!);
        }}
      />
      <div role="group" aria-label="Format" className="flex flex-wrap">
        {formatsOf(family).map((name) => (
          <button
            key={name}
            type="button"
            aria-pressed={name === format}
            data-tip={EXPORT_FORMATS[name].says}
            className={`moves h-8 px-2 text-[13px] ${name === format ? 'text-wax-100 underline decoration-flame decoration-2 underline-offset-[6px]' : 'text-wax-500 hover:text-wax-100'}`}
            onClick={() => {
              onChoose(name);
            }}
          >
            {EXPORT_FORMATS[name].label}
          </button>
        ))}
      </div>
      <p className="min-h-10 px-2 text-[13px] text-wax-500" data-testid="format-says">
        {says}
      </p>
    </div>
  );
}
