/** What is on its way in or out, with how far it is, and what stops it. */
export interface Coming {
  readonly name: string;
  readonly done: number;
  readonly of: number;
}

interface ComingBarProps {
  coming: Coming;
  onStop: () => void;
  /** At the desk the foot is taken. */
  at?: 'foot' | 'head';
}

export function ComingBar({ coming, onStop, at = 'foot' }: ComingBarProps) {
  return (
    <div
      role="status"
      className={`fixed left-1/2 z-20 flex ${at === 'foot' ? 'bottom-6' : 'top-16'} w-96 -translate-x-1/2 items-center gap-3 rounded-[10px] border border-soot-700 bg-soot-900 px-4 py-3 text-[13px]`}
    >
      <span className="min-w-0 flex-1 truncate">{coming.name}</span>
      <progress className="h-1.5 w-32" max={coming.of} value={coming.done} aria-label={coming.name} />
      <button type="button" className="text-flame underline" onClick={onStop}>
        Stop
      </button>
    </div>
  );
}
