/** Which values lie in the strip, over each other, beside the drawings. */
import { create } from 'zustand';
import { atOpening } from '../shot/opening.ts';

interface InStrip {
  /** What tells the values apart, in the order they were put there. */
  readonly names: readonly string[];
}

export const useInStrip = create<InStrip>(() => ({ names: [] }));
atOpening(() => {
  useInStrip.setState({ names: [] });
});

/** Puts a value into the strip, or takes it out. */
export function toggleInStrip(name: string): void {
  const { names } = useInStrip.getState();
  useInStrip.setState({
    names: names.includes(name) ? names.filter((each) => each !== name) : [...names, name],
  });
}

/** Colours of curves over each other: told apart by lightness too. */
const COLOURS = ['#ffc25c', '#7fc3d8', '#e08a6a', '#b9a3e3', '#9fc3a4', '#d8d1c4'] as const;

/** The colour of a value in the strip. */
export const colourInStrip = (name: string): string =>
  COLOURS[Math.max(0, useInStrip.getState().names.indexOf(name)) % COLOURS.length]!;
