/** The name of the piece that marks picked up belong to: the same on every drawing, for in-betweens and following. */
import { textProblem } from '@tallow/core/document';
import { changeMarks, namedPiece } from '@tallow/core/edit';
import { TypedField } from '../../parts/typed-field.tsx';
import { edit, say } from '../../shot/document.ts';
import { pick, selectedMarks, usePick, whyNotChange } from './pick.ts';

export function PieceName() {
  usePick((s) => s.base);
  const names = new Set(selectedMarks().map((mark) => (mark.kind === 'rub' ? '' : (mark.piece ?? ''))));
  const common = names.size === 1 ? [...names][0]! : '';
  const take = (typed: string): void => {
    const name = typed.trim();
    const trouble = whyNotChange() ?? (name === '' ? null : textProblem(name, 'The name'));
    if (trouble) say(trouble);
    else if (name !== common || names.size > 1)
      edit(name === '' ? 'no piece' : `piece ${name}`, (doc) =>
        changeMarks(doc, pick().sets, (mark) => namedPiece(mark, name === '' ? null : name)),
      );
  };
  return (
    <label
      className="flex h-9 items-center gap-2 text-[13px] text-wax-300"
      data-tip="Marks of one piece become each other in in-betweens, and are followed together"
    >
      <span className="w-[66px] shrink-0">Piece</span>
      <TypedField
        className="field !h-8 min-w-0 flex-1"
        label="Piece"
        placeholder={names.size > 1 ? 'several' : 'none'}
        value={common}
        onTake={take}
      />
    </label>
  );
}
