/** What has just happened, said once near the foot of the page, with what can be done about it. */
import { useEffect } from 'react';
import { useDocument } from './document.ts';

const STAYS_MS = 7000;

/** @param place where it stands: at the foot of the page, or over the strip, so that neither picture nor tray is covered. */
export function NoticeBar({ place = 'foot' }: { place?: 'foot' | 'strip' }) {
  const notice = useDocument((s) => s.notice);
  useEffect(() => {
    if (!notice) return undefined;
    const forget = (): void => {
      useDocument.setState((s) => (s.notice?.id === notice.id ? { notice: null } : {}));
    };
    // What offers something to do stays until something else is done.
    if (notice.act && useDocument.getState().doc)
      return useDocument.subscribe(({ serial }, before) => {
        if (serial !== before.serial) forget();
      });
    const timer = setTimeout(forget, STAYS_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [notice]);
  return (
    <div
      role="status"
      className={`pointer-events-none fixed left-0 z-50 flex justify-center px-4 ${place === 'strip' ? 'bottom-[90px] right-[368px]' : 'bottom-5 right-0'}`}
    >
      {notice ? (
        <div className="pointer-events-auto flex items-center gap-4 rounded-[10px] border border-soot-700 bg-soot-800 px-4 py-2.5 text-wax-100 shadow-xl">
          <span>{notice.text}</span>
          {notice.act ? (
            <button
              type="button"
              className="moves -mr-1 rounded-md px-2 py-1 font-semibold text-flame hover:bg-flame-deep"
              onClick={() => {
                notice.act?.run();
                useDocument.setState({ notice: null });
              }}
            >
              {notice.act.label}
            </button>
          ) : null}
        </div>
      ) : null}
    </div>
  );
}
