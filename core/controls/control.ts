/** Numbers that a computation is set by: their ranges, what they are usually, and how they are called on screen. */

/** One number that can be set. */
export interface Control {
  readonly key: string;
  readonly label: string;
  readonly unit: '' | 'px' | '°' | '%' | 'drawings';
  readonly least: number;
  readonly most: number;
  readonly step: number;
  readonly usual: number;
  /** Words for whole numbers from `least` on, where it is a choice. */
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
  [least, most, step]: readonly [number, number, number],
  usual: number,
  more?: 'more',
): Control => ({ key, label, unit, least, most, step, usual, ...(more ? { more: true } : {}) });

/** A choice among words, kept as a whole number from 0. */
export const choice = (key: string, label: string, choices: readonly string[], usual = 0): Control => ({
  key,
  label,
  unit: '',
  least: 0,
  most: choices.length - 1,
  step: 1,
  usual,
  choices,
});

/** The settings of a kind of computation, within their ranges; what is missing is as usual. */
export function settingsOf(kind: { readonly controls: readonly Control[] }, given: Settings): Settings {
  return Object.fromEntries(
    kind.controls.map(({ key, least, most, usual }) => [key, Math.min(most, Math.max(least, given[key] ?? usual))]),
  );
}
