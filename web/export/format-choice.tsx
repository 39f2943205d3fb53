/** In which format: what it is to serve first, then how. */
import {
  EXPORT_FAMILIES,
  EXPORT_FORMATS,
  formatsOf,
  type ExportFamily,
  type ExportFormatName,
} from '@tallow/core/formats';
import { Choice, Words } from '../parts/choice.tsx';

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
      <Words
        label="Format"
        value={format}
        choices={formatsOf(family).map((name) => ({
          value: name,
          label: EXPORT_FORMATS[name].label,
          tip: EXPORT_FORMATS[name].says,
        }))}
        className="flex-wrap"
        onChoose={onChoose}
      />
      <p className="min-h-10 px-2 text-[13px] text-wax-500" data-testid="format-says">
        {says}
      </p>
    </div>
  );
}
