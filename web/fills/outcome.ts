/** What became of drawings that fills were carried through, in words: every drawing is counted once. */
import type { FillTrouble } from '@tallow/core/paint';
import type { FilledThrough } from '@tallow/core/render';

/** What a drawing is counted as, the worst first. */
const WORDS: Readonly<Record<FillTrouble, string>> = {
  leaked: 'run out',
  lost: 'lost a region',
  bare: 'with a new region',
};

const worst = ({ reports }: Pick<FilledThrough, 'reports'>): FillTrouble | null =>
  (['leaked', 'lost', 'bare'] as const).find((each) => reports.some(({ trouble }) => trouble === each)) ?? null;

/**
 * @param all drawings of the range. @param withLines those of them that have lines, the first of which was filled before.
 * @param results what came of each of these but the first.
 */
export function outcomeText(
  all: number,
  withLines: number,
  results: readonly Pick<FilledThrough, 'reports'>[],
): string {
  const found = results.map(worst);
  const filled = 1 + found.filter((each) => each === null).length;
  if (filled === all) return `All ${all} drawings are filled.`;
  const parts = [
    `${filled} filled`,
    ...(['leaked', 'lost', 'bare'] as const).flatMap((trouble) => {
      const count = found.filter((each) => each === trouble).length;
      return count > 0 ? [`${count} ${WORDS[trouble]}`] : [];
    }),
    ...(all > withLines ? [`${all - withLines} without lines`] : []),
  ];
  return `${all} drawings: ${parts.join(', ')}.`;
}
