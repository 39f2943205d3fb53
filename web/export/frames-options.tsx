/** What only frames as files have: parts, how alpha is written, names, and the papers beside them. */
import {
  deliveredFrames,
  EXPORT_FORMATS,
  EXPORT_LIMITS,
  firstNumber,
  frameName,
  patternProblem,
  versionProblem,
  type AlphaKind,
  type ExportSettings,
} from '@tallow/core/formats';
import { NumberField } from '../parts/number-field.tsx';
import { Check, Fold, SelectRow } from '../parts/panel.tsx';

const PARTS: Readonly<Record<ExportSettings['parts'], string>> = {
  picture: 'the whole picture',
  layers: 'one for each layer',
  elements: 'one for each element',
  planes: 'one for each plane',
  roles: 'one for each role: line, body, tone …',
};

const ALPHAS: Readonly<Record<AlphaKind, string>> = {
  straight: 'straight: colours as they are',
  premultiplied: 'premultiplied: colours times alpha',
  matte: 'matte: the alpha alone, white on black',
};

interface OptionsProps {
  readonly settings: ExportSettings;
  readonly set: (more: Partial<ExportSettings>) => void;
}

const optionsFrom = <T extends string>(words: Readonly<Record<T, string>>, keys: readonly T[]) =>
  keys.map((value) => ({ value, label: words[value] }));

/** How the range is parted, and how transparency is written. */
export function PartsAndAlpha({ settings, set }: OptionsProps) {
  const { alphas, whole } = EXPORT_FORMATS[settings.format];
  if (whole) return null;
  return (
    <div>
      <SelectRow
        label="Sequences"
        value={settings.parts}
        options={optionsFrom(PARTS, Object.keys(PARTS) as ExportSettings['parts'][])}
        onChoose={(value) => {
          set({ parts: value as ExportSettings['parts'] });
        }}
      />
      {alphas.length > 1 ? (
        <SelectRow
          label="Alpha"
          value={settings.alpha}
          options={optionsFrom(ALPHAS, alphas)}
          onChoose={(value) => {
            set({ alpha: value as AlphaKind });
          }}
        />
      ) : null}
    </div>
  );
}

/** What is wrong with how files are to be named, or null. */
export const namesProblem = ({ pattern, version }: ExportSettings): string | null => {
  const wrong = patternProblem(pattern);
  if (wrong) return `The pattern ${wrong}`;
  const version_ = pattern.includes('{version}') ? versionProblem(version) : null;
  return version_ && `The version ${version_}`;
};

/** Names of files, and what lies beside them. @param stem of the shot's name. @param part the first sequence's name. @param rate frames a second of the shot. */
export function NamesAndPapers({
  settings,
  set,
  stem,
  part,
  rate,
}: OptionsProps & { stem: string; part: string; rate: number }) {
  const { pattern, version, padding, before, after } = settings;
  const bad = namesProblem(settings);
  const ending = EXPORT_FORMATS[settings.format].frames!;
  const count = deliveredFrames(settings, rate).length;
  const name = (nth: number) => `${frameName(settings, stem, part, nth)}.${ending}`;
  return (
    <div>
      <label className="block">
        <span className="mb-1 block text-[13px] text-wax-500">Names</span>
        <input
          aria-label="Name pattern"
          className="field w-full font-mono text-[13px]"
          value={pattern}
          aria-invalid={bad !== null}
          onChange={(event) => {
            set({ pattern: event.target.value });
          }}
        />
      </label>
      <div className={`mt-1 truncate font-mono text-xs ${bad ? 'text-harm' : 'text-wax-500'}`} data-testid="names">
        {bad ?? `${name(0)} to ${name(count - 1)}`}
      </div>
      <Fold label="Numbers, version, handles">
        <div className="grid grid-cols-3 gap-3 pb-2">
          <label className="block">
            <span className="mb-1 block text-xs text-wax-500">Version</span>
            <input
              aria-label="Version"
              className="field w-full font-mono"
              value={version}
              data-tip="Stands for {version} in the names"
              onChange={(event) => {
                const next = event.target.value;
                // Typed, it is wanted in the names.
                set({
                  version: next,
                  pattern: pattern.includes('{version}') ? pattern : pattern.replace('{frame}', '{version}-{frame}'),
                });
              }}
            />
          </label>
          <NumberField
            key={`n${firstNumber(settings)}`}
            label="First number"
            value={firstNumber(settings)}
            min={0}
            max={EXPORT_LIMITS.first}
            onTake={(first) => {
              set({ first });
            }}
          />
          <NumberField
            key={`d${padding}`}
            label="Digits"
            value={padding}
            min={1}
            max={EXPORT_LIMITS.padding}
            onTake={(digits) => {
              set({ padding: digits });
            }}
          />
          <NumberField
            key={`b${before}`}
            label="Frames before"
            value={before}
            min={0}
            max={EXPORT_LIMITS.handle}
            onTake={(handle) => {
              set({ before: handle });
            }}
          />
          <NumberField
            key={`a${after}`}
            label="Frames after"
            value={after}
            min={0}
            max={EXPORT_LIMITS.handle}
            onTake={(handle) => {
              set({ after: handle });
            }}
          />
        </div>
      </Fold>
      {EXPORT_FORMATS[settings.format].whole ? null : (
        <Check
          label="Cut to what is drawn"
          title="The same cut for all frames of a sequence; the notes say where it lies"
          checked={settings.trim}
          onChange={(trim) => {
            set({ trim, ...(trim ? { notes: true } : {}) });
          }}
        />
      )}
      <Check
        label="Notes beside them"
        title="Sizes, alpha, handles, and how parts are laid over one another"
        checked={settings.notes}
        onChange={(notes) => {
          set({ notes });
        }}
      />
      <Check
        label="Exposure sheet as CSV beside them"
        checked={settings.sheet}
        onChange={(sheet) => {
          set({ sheet });
        }}
      />
    </div>
  );
}
