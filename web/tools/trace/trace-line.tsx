/** Above the picture while ghosts are moved: what a drag does, and the way back. */
import { Words } from '../../parts/choice.tsx';
import { setShowing, useShowing } from '../../picture/showing.ts';
import type { Shifting } from './trace.ts';
import { ActionWords } from '../../actions/action-button.tsx';
import { TRACE_ACTIONS } from './actions.ts';
import { TRACE } from './tool.ts';

const WORDS: readonly { value: Shifting; label: string; tip: string }[] = [
  { value: 'move', label: 'Move', tip: 'A drag moves the ghost' },
  { value: 'turn', label: 'Turn', tip: 'A drag turns the ghost about its middle; or hold Shift' },
  { value: 'scale', label: 'Scale', tip: 'A drag scales the ghost; or hold Alt' },
];

export function TraceLine() {
  const shifting = useShowing((s) => s.shifting);
  useShowing((s) => s.ghostShift);
  return (
    <div className="flex min-w-0 flex-1 items-center gap-1 px-2" data-testid="trace-line">
      <Words
        label="What a drag does to the ghost"
        value={shifting}
        choices={WORDS}
        onChoose={(next) => {
          setShowing({ shifting: next });
        }}
      />
      <ActionWords action={TRACE_ACTIONS.ghostsBack} label="Put all back" />
      <ActionWords action={TRACE.taking!} label="Draw" />
    </div>
  );
}
