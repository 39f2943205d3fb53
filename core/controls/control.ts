/** Numbers that a computation is set by: their ranges, what they are usually, and how they are called on screen. */

/** One number that can be set. */
export interface Control {
  readonly key: string;
  readonly label: string;
  readonly unit: '' | 'px' | '°' | '%' | 'drawings';
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly default: number;
  /** Words for whole numbers from `min` on, where it is a choice. */
  readonly choices?: readonly string[];
  /** Set aside until asked for. */
  readonly more?: true;
}

/** Numbers by the key of their control. */
export type Settings = Readonly<Record<string, number>>;

/** A control in one line. */
export const control = (
  key: string,
  label: string,
  unit: Control['unit'],
  [min, max, step]: readonly [number, number, number],
  preset: number,
  more?: 'more',
): Control => ({ key, label, unit, min, max, step, default: preset, ...(more ? { more: true } : {}) });

/** A choice among words, kept as a whole number from 0. */
export const choice = (key: string, label: string, choices: readonly string[], preset = 0): Control => ({
  key,
  label,
  unit: '',
  min: 0,
  max: choices.length - 1,
  step: 1,
  default: preset,
  choices,
});

/** The settings of a kind of computation, within their ranges; what is missing is as usual. */
export function settingsOf(kind: { readonly controls: readonly Control[] }, given: Settings): Settings {
  return Object.fromEntries(
    kind.controls.map(({ key, min, max, default: preset }) => [
      key,
      Math.min(max, Math.max(min, given[key] ?? preset)),
    ]),
  );
}
