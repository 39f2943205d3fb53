/** The desk of one shot. */
import { startTransition, useEffect, useRef, useState, type RefObject } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { Refused } from '../api/client.ts';
import { AssembleStep } from '../assemble/assemble-step.tsx';
import { Column } from '../column/column.tsx';
import '../playback/place.ts';
import { KeysDialog } from '../page/keys-dialog.tsx';
import { StagePicture } from '../stage/stage.tsx';
import { TopBar } from '../page/top-bar.tsx';
import { FOLLOWERS } from '../derived/followers.ts';
import { followEdits } from '../derived/follow.ts';
import { ExportStep } from '../export/export-step.tsx';
import { Targets } from '../references/target.tsx';
import { PlanColumn } from '../plan/plan-column.tsx';
import { PlanTray } from '../plan/plan-tray.tsx';
import { stopRow } from '../plan/row-player.ts';
import { NoticeBar } from '../shot/notice.tsx';
import { LeaveGuard } from '../saving/leave-guard.tsx';
import { useBindings } from '../actions/bindings.ts';
import { setShowing } from '../picture/showing.ts';
import { useScreen } from '../screen/screen.ts';
import { IntakeComing, IntakeDialog } from '../intake/intake-dialog.tsx';
import { ScanDialog } from '../intake/scan-dialog.tsx';
import { KeepDialog } from '../shelf/keep-dialog.tsx';
import { VersionsDialog } from '../versions/versions-dialog.tsx';
import { setPlanning } from '../plan/plan.ts';
import { useDocument } from '../shot/document.ts';
import { listen } from '../sound/hearing.ts';
import { ACTIONS } from '../page/all-actions.ts';
import { attachKeys } from '../page/keys.ts';
import { openShot } from '../saving/open-shot.ts';
import { Strip } from '../strip/strip.tsx';
import { Tray } from '../tray/tray.tsx';
import { titleOf } from '../actions/key-text.ts';
import { act } from '../actions/action.ts';
import { painter } from '../workers/painter-client.ts';
import { SCREEN_ACTIONS } from '../screen/actions.ts';

const RETRY_MS = 1500;

/** Opens the shot; tries again by itself while the server cannot be reached. @returns which shot is open, and why the other is not. */
function useShot(shotId: string): { opened: string | null; trouble: string | null } {
  const [trouble, setTrouble] = useState<string | null>(null);
  const [openedId, setOpened] = useState<string | null>(null);
  useEffect(() => {
    let left = false;
    let close: (() => void) | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    // It starts while the shot comes in.
    painter();
    const open = (): void => {
      openShot(shotId, () => left).then(
        (opened) => {
          if (left) opened?.();
          else {
            close = opened;
            setTrouble(null);
            // Only now everything has begun anew: a step may set what it needs.
            // A step at a time, so that the page answers meanwhile: a desk is a lot to put up.
            startTransition(() => {
              setOpened(shotId);
            });
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
  return { opened: openedId, trouble };
}

interface DeskStepProps {
  readonly planning: boolean;
  /** Parts of the desk that have been up since the shot was opened: from then on they come with the picture. */
  readonly wasUp: RefObject<number>;
}

/** Parts of the desk, in the order in which they come up after the picture. */
const PARTS = ['edges', 'strip', 'tray', 'column', 'layers'] as const;

/** Which parts of the desk are up. The picture comes first, then one after another, each in a task of its own. */
function usePartsUp(wasUp: RefObject<number>): (part: (typeof PARTS)[number]) => boolean {
  const [up, setUp] = useState(wasUp.current);
  useEffect(() => {
    wasUp.current = up;
    if (up < PARTS.length)
      startTransition(() => {
        setUp(up + 1);
      });
  }, [up, wasUp]);
  return (part) => PARTS.indexOf(part) < up;
}

function DeskStep({ planning, wasUp }: DeskStepProps) {
  useEffect(() => attachKeys(ACTIONS), []);
  useEffect(() => {
    setShowing({ planning });
    return () => {
      setShowing({ planning: false });
      setPlanning({ tool: null, draft: [] });
      stopRow();
    };
  }, [planning]);
  const panels = useScreen((s) => s.panels);
  const full = useScreen((s) => s.full);
  const leftHanded = useBindings((s) => s.leftHanded);
  const bare = full || !panels;
  const isUp = usePartsUp(wasUp);
  return (
    <div className={`flex min-h-0 flex-1 ${leftHanded ? 'flex-row-reverse' : ''}`}>
      <main className="relative flex min-w-0 flex-1 flex-col">
        <div className="flex min-h-0 flex-1">
          {planning || full ? null : <Targets />}
          <StagePicture planning={planning} areEdgesUp={isUp('edges')} />
        </div>
        {bare ? null : <Strip isUp={isUp('strip')} />}
        {bare ? null : planning ? <PlanTray /> : <Tray isUp={isUp('tray')} />}
        {!panels && !full ? (
          <button
            type="button"
            data-tip={titleOf(SCREEN_ACTIONS.panels, 'Show column, strip and tray')}
            className="moves absolute bottom-2 right-2 z-10 h-8 rounded-lg bg-soot-900/80 px-3 text-[13px] text-wax-300 hover:text-wax-100"
            onClick={() => {
              act(SCREEN_ACTIONS.panels);
            }}
          >
            Show column, strip and tray
          </button>
        ) : null}
      </main>
      {bare ? null : planning ? <PlanColumn /> : <Column isUp={isUp('column')} areLayersUp={isUp('layers')} />}
      <KeysDialog />
    </div>
  );
}

export function ShotPage() {
  const { shotId = '', step = 'draw' } = useParams();
  const { opened, trouble } = useShot(shotId);
  useEffect(() => followEdits(FOLLOWERS), []);
  useEffect(listen, []);
  const full = useScreen((s) => s.full);
  const wasUp = useRef(0);
  const isOpen = useDocument((s) => s.doc?.shotId === shotId) && opened === shotId;
  if (step !== 'plan' && step !== 'draw' && step !== 'assemble' && step !== 'export')
    return <Navigate to={`/shots/${shotId}/draw`} replace />;
  return (
    <div className="flex h-full flex-col overflow-hidden">
      {full && step !== 'export' ? null : <TopBar step={step} isOpen={isOpen} />}
      {!isOpen ? (
        <div className="grid flex-1 place-items-center text-center">
          <div className="space-y-3">
            <p className={trouble ? 'text-warn' : 'text-wax-500'}>{trouble ?? 'Opening the shot …'}</p>
            {trouble ? (
              <Link to="/" className="text-flame underline">
                All shots
              </Link>
            ) : null}
          </div>
        </div>
      ) : step === 'export' ? (
        <ExportStep />
      ) : step === 'assemble' ? (
        <AssembleStep />
      ) : (
        <DeskStep planning={step === 'plan'} wasUp={wasUp} />
      )}
      {isOpen ? (
        <>
          <KeepDialog />
          <IntakeDialog />
          <ScanDialog />
          <IntakeComing />
          <VersionsDialog />
          <LeaveGuard shotId={shotId} />
          <NoticeBar place={step === 'export' || full ? 'foot' : 'strip'} />
        </>
      ) : null}
    </div>
  );
}
