/** What has just happened, said once at the foot of the page, with what can be done about it. */
import { useEffect } from 'react';
import { useDocument } from './document.ts';

const STAYS_MS = 7000;

export function NoticeBar() {
  const notice = useDocument((s) => s.notice);
  useEffect(() => {
    if (!notice) return undefined;
    const timer = setTimeout(() => {
      useDocument.setState((s) => (s.notice?.id === notice.id ? { notice: null } : {}));
    }, STAYS_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [notice]);
  return (
    <div role="status" className="pointer-events-none fixed inset-x-0 bottom-5 z-50 flex justify-center px-4">
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
