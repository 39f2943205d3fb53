/** What of its drawings is the subject: a piece by its name, marks that were picked, or all that moved. */
import { bodyOf, marksOfPiece, matchMarks } from '../between/index.ts';
import { marksInOrder, type Drawing, type Id, type Mark } from '../document/index.ts';
import { isInside } from '../geometry/index.ts';
import type { Silhouette } from './silhouette.ts';

type Marks = Pick<Drawing, 'marks' | 'order'>;

interface SubjectAsked {
  readonly piece: string | null;
  /** Ids of marks of the drawing that arrives. */
  readonly selected: ReadonlySet<Id>;
}

const isSame = (a: Mark, b: Mark): boolean => {
  if (a.kind !== b.kind) return false;
  const columns = (mark: Mark) => (mark.kind === 'shape' ? mark.rings : [mark.samples.x, mark.samples.y]);
  const [p, q] = [columns(a), columns(b)];
  return (
    p.length === q.length &&
    p.every((column, i) => column.length === q[i]!.length && column.every((v, k) => v === q[i]![k]))
  );
};

/** What of the lead layer's drawing is the subject, and what of the drawing before became it. */
export function subjectOf(
  before: Marks,
  after: Marks,
  { piece, selected }: SubjectAsked,
): { before: Mark[]; after: Mark[] } {
  if (piece !== null)
    return { before: marksOfPiece(drawing(before), piece), after: marksOfPiece(drawing(after), piece) };
  const pairs = matchMarks(before, after, { ties: [] });
  const own = (id: Id) => pairs.find(({ to }) => to.includes(id))?.from ?? [];
  const [all, were] = [marksInOrder(after), marksInOrder(before)];
  const chosen =
    selected.size > 0
      ? all.filter(({ id }) => selected.has(id))
      : all.filter((mark) => !own(mark.id).some((id) => isSame(before.marks[id]!, mark)));
  const from = new Set(chosen.flatMap(({ id }) => own(id)));
  // Where nothing is picked, what is gone belongs to what moved.
  const gone = selected.size > 0 ? [] : pairs.flatMap(({ from: ids, to }) => (to.length === 0 ? ids : []));
  return { before: were.filter(({ id }) => from.has(id) || gone.includes(id)), after: chosen };
}

const drawing = ({ marks, order }: Marks): Drawing => ({ kind: 'drawing', id: '', marks, order });

/** Marks of a tied layer that lie on the subject: all of them where the subject is all that is drawn. */
export const onSubject = (marks: readonly Mark[], { outlines }: Silhouette): Mark[] =>
  marks.filter((mark) => {
    const { middle } = bodyOf(mark);
    return outlines.some((outline) =>
      isInside(
        outline.map(([x, y]) => ({ x, y })),
        middle,
      ),
    );
  });
