/** What stays set and changes what the pen does, each as a chip in words: a press ends it. */
import { setLayer } from '@tallow/core/edit';
import { X } from 'lucide-react';
import { setBrush, setToolState, useToolState } from '../hand/tool-state.ts';
import { madeBy } from '../hand/brushes.ts';
import { setShowing, useShowing } from '../picture/showing.ts';
import { current, useCurrent } from '../selection/current.ts';
import { edit } from '../shot/document.ts';
import { FORM_WORDS } from '../tray/form-words.ts';

/** A setting that stays. */
interface StayingSet {
  readonly words: string;
  readonly end: () => void;
}

/** Everything that is set now, the pen's own first. */
function useStaying(): StayingSet[] {
  const { form, exact, closes, behind, ruler, activeTool, goesOn, grows } = useToolState();
  const brush = useToolState((s) => s.brushes[s.brushName]);
  const rubs = useToolState((s) => madeBy(s.brushName) === 'rub');
  const moved = useShowing((s) => Object.keys(s.ghostShift).length > 0);
  const layer = useCurrent()?.active?.layer;
  const list: StayingSet[] = [];
  const add = (isSet: boolean, words: string, end: () => void): void => {
    if (isSet) list.push({ words, end });
  };
  if (activeTool === null) {
    add(form !== 'free', FORM_WORDS[form].label.toLowerCase(), () => {
      setToolState({ form: 'free' });
    });
    add(form === 'free' && brush.finish !== 'drawn', brush.finish, () => {
      setBrush({ finish: 'drawn' });
    });
    add(exact, 'every 15°', () => {
      setToolState({ exact: false });
    });
    add(closes, 'closes', () => {
      setToolState({ closes: false });
    });
    add(behind && !rubs, 'behind', () => {
      setToolState({ behind: false });
    });
    add(ruler !== null, 'ruler', () => {
      setToolState({ ruler: null });
    });
    add(layer?.inside === true, 'only inside', () => {
      const id = current()?.active?.layer.id;
      if (id) edit('draw anywhere', (doc) => setLayer(doc, id, { inside: false }));
    });
  }
  add(goesOn, grows ? 'goes on, growing' : 'goes on', () => {
    setToolState({ goesOn: false });
  });
  add(moved, 'ghosts moved', () => {
    setShowing({ ghostShift: {} });
  });
  return list;
}

export function SetChips() {
  const staying = useStaying();
  return (
    <span className="flex shrink-0 items-center gap-1" data-testid="set-chips">
      {staying.map(({ words, end }) => (
        <button
          key={words}
          type="button"
          data-tip={`Set: ${words} · press to end it`}
          aria-label={`End ${words}`}
          className="moves flex h-7 items-center gap-1 rounded-full bg-black/30 pl-2.5 pr-1.5 text-xs text-flame hover:bg-black/50"
          onClick={end}
        >
          {words}
          <X size={12} />
        </button>
      ))}
    </span>
  );
}
