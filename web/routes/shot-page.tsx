/** The desk of one shot. */
import { useEffect, useState } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { Refused } from '../api/client.ts';
import { Column } from '../desk/column.tsx';
import { KeysDialog } from '../desk/keys-dialog.tsx';
import { Picture } from '../desk/picture.tsx';
import { TopBar } from '../desk/top-bar.tsx';
import { FOLLOWERS } from '../derived/followers.ts';
import { followEdits } from '../derived/follow.ts';
import { ExportStep } from '../export/export-step.tsx';
import { Targets } from '../references/target.tsx';
import { PlanColumn } from '../plan/plan-column.tsx';
import { PlanTray } from '../plan/plan-tray.tsx';
import { stopRow } from '../plan/row-player.ts';
import { NoticeBar } from '../parts/notice.tsx';
import { LeaveGuard } from '../saving/leave-guard.tsx';
import { act } from '../state/actions.ts';
import { useBindings } from '../state/bindings.ts';
import { setDesk, useDesk } from '../state/desk.ts';
import { setPlanning } from '../state/plan.ts';
import { useDocument } from '../state/document.ts';
import { attachKeys, titleOf } from '../state/keys.ts';
import { openShot } from '../state/session.ts';
import { Strip } from '../strip/strip.tsx';
import { Tray } from '../tray/tray.tsx';

const RETRY_MS = 1500;

/** Opens the shot; tries again by itself while the server cannot be reached. */
function useShot(shotId: string): string | null {
  const [trouble, setTrouble] = useState<string | null>(null);
  useEffect(() => {
    let left = false;
    let close: (() => void) | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const open = (): void => {
      openShot(shotId, () => left).then(
        (opened) => {
          if (left) opened?.();
          else {
            close = opened;
            setTrouble(null);
          }
        },
        (error: unknown) => {
          if (left) return;
          setTrouble(error instanceof Error ? error.message : String(error));
          if (!(error instanceof Refused)) timer = setTimeout(open, RETRY_MS);
        },
      );
    };
    open();
    return () => {
      left = true;
      clearTimeout(timer);
      close?.();
    };
  }, [shotId]);
  return trouble;
}

function DeskStep({ planning }: { planning: boolean }) {
  useEffect(attachKeys, []);
  useEffect(() => {
    setDesk({ planning });
    return () => {
      setDesk({ planning: false });
      setPlanning({ tool: null, draft: [] });
      stopRow();
    };
  }, [planning]);
  const panels = useDesk((s) => s.panels);
  const full = useDesk((s) => s.full);
  const leftHanded = useBindings((s) => s.leftHanded);
  const bare = full || !panels;
  return (
    <div className={`flex min-h-0 flex-1 ${leftHanded ? 'flex-row-reverse' : ''}`}>
      <main className="relative flex min-w-0 flex-1 flex-col">
        <div className="flex min-h-0 flex-1">
          {planning || full ? null : <Targets />}
          <Picture planning={planning} />
        </div>
        {bare ? null : <Strip />}
        {bare ? null : planning ? <PlanTray /> : <Tray />}
        {!panels && !full ? (
          <button
            type="button"
            title={titleOf('panels', 'Show column, strip and tray')}
            className="moves absolute bottom-2 right-2 z-10 h-8 rounded-lg bg-soot-900/80 px-3 text-[13px] text-wax-300 hover:text-wax-100"
            onClick={() => {
              act('panels');
            }}
          >
            Show column, strip and tray
          </button>
        ) : null}
      </main>
      {bare ? null : planning ? <PlanColumn /> : <Column />}
      <KeysDialog />
    </div>
  );
}

export function ShotPage() {
  const { shotId = '', step = 'draw' } = useParams();
  const trouble = useShot(shotId);
  useEffect(() => followEdits(FOLLOWERS), []);
  const full = useDesk((s) => s.full);
  const isOpen = useDocument((s) => s.doc?.shotId === shotId);
  if (step !== 'plan' && step !== 'draw' && step !== 'export') return <Navigate to={`/shots/${shotId}/draw`} replace />;
  if (!isOpen) {
    return (
      <div className="grid h-full place-items-center text-center">
        <div className="space-y-3">
          <p className={trouble ? 'text-warn' : 'text-wax-500'}>{trouble ?? 'Opening the shot …'}</p>
          {trouble ? (
            <Link to="/" className="text-flame underline">
              All shots
            </Link>
          ) : null}
        </div>
      </div>
    );
  }
  return (
    <div className="flex h-full flex-col overflow-hidden">
      {full && step !== 'export' ? null : <TopBar step={step} />}
      {step === 'export' ? <ExportStep /> : <DeskStep planning={step === 'plan'} />}
      <LeaveGuard shotId={shotId} />
      <NoticeBar />
    </div>
  );
}
