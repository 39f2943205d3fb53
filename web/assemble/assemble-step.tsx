/** The step Assemble: the shot as it will be, its planes unrolled in time, and what is picked. */
import { useEffect } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { attachKeys } from '../page/keys.ts';
import { KeysDialog } from '../page/keys-dialog.tsx';
import { useBindings } from '../actions/bindings.ts';
import { EXPORT_ACTIONS } from '../export/again.ts';
import { takeTool, useToolState } from '../hand/tool-state.ts';
import { setShowing, useShowing } from '../picture/showing.ts';
import { setPlayback, stopPlaying } from '../playback/playback.ts';
import { beginShotTime, endShotTime } from '../playback/shot-time.ts';
import { ReferencesPanel } from '../tools/plate/references-panel.tsx';
import { layFootage, setReferences, useReferences } from '../references/references.ts';
import type { Footage } from '../references/footage.ts';
import { SCREEN_ACTIONS } from '../screen/actions.ts';
import { setScreen, useScreen } from '../screen/screen.ts';
import { SHELF_ACTIONS } from '../shelf/actions.ts';
import { ShelfPanel } from '../shelf/shelf-panel.tsx';
import { current } from '../selection/current.ts';
import { selection } from '../selection/selection.ts';
import { StagePicture } from '../stage/stage.tsx';
import { SOUND_ACTIONS } from '../sound/actions.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { CAMERA_ACTIONS } from '../tools/camera/actions.ts';
import { CAMERA } from '../tools/camera/tool.ts';
import { PLACE_ACTIONS } from '../tools/place/actions.ts';
import { selectUses } from '../tools/place/placing.ts';
import { PLACE } from '../tools/place/tool.ts';
import { VERSION_ACTIONS } from '../versions/actions.ts';
import { VIEW_ACTIONS } from '../view/actions.ts';
import { AssembleColumn } from './assemble-column.tsx';
import { Foot } from './foot.tsx';
import { TallStrip } from './tall-strip.tsx';

const { play, playOnce, previousFrame, nextFrame, full } = TIME_ACTIONS;
const { panels, undo, redo, keys } = SCREEN_ACTIONS;
/** What keys do here: nothing that draws. */
const ACTIONS = [
  play,
  playOnce,
  TIME_ACTIONS.playsShot,
  previousFrame,
  nextFrame,
  TIME_ACTIONS.previous,
  TIME_ACTIONS.next,
  TIME_ACTIONS.firstFrame,
  TIME_ACTIONS.lastFrame,
  full,
  panels,
  undo,
  redo,
  keys,
  ...Object.values(SHELF_ACTIONS),
  ...Object.values(VERSION_ACTIONS),
  ...Object.values(VIEW_ACTIONS),
  ...Object.values(PLACE_ACTIONS),
  ...Object.values(CAMERA_ACTIONS),
  ...Object.values(SOUND_ACTIONS),
  ...Object.values(EXPORT_ACTIONS),
];

type Brought = Pick<Footage, 'assets' | 'width' | 'height'> & { readonly name: string };

export function AssembleStep() {
  const shown = useScreen((s) => s.panels);
  const isFull = useScreen((s) => s.full);
  const leftHanded = useBindings((s) => s.leftHanded);
  const plates = useReferences((s) => s.shown);
  const shelfShown = useScreen((s) => s.panel === 'shelf');
  useEffect(() => attachKeys(ACTIONS), []);
  useEffect(() => {
    stopPlaying();
    beginShotTime();
    takeTool(PLACE);
    setShowing({ assembling: true, finished: false, alone: null });
    setPlayback({ playsShot: null });
    setReferences({ shown: false });
    setScreen({ panel: null });
    const place = current()?.path;
    // What one stood in is picked; where nothing was chosen, nothing is.
    if (place?.length === 1 && selection().place !== null) selectUses([place[0]!.id]);
    return () => {
      stopPlaying();
      endShotTime();
      takeTool(null);
      setShowing({ assembling: false, filming: false });
      setPlayback({ playsShot: null });
    };
  }, []);
  // What was active for a moment, such as a plate, gives way to placing again, or to the camera.
  const tool = useToolState((s) => s.activeTool);
  const filming = useShowing((s) => s.filming);
  useEffect(() => {
    const fitting = filming ? CAMERA : PLACE;
    if (tool === null || ((tool === PLACE || tool === CAMERA) && tool !== fitting)) takeTool(fitting);
  }, [tool, filming]);
  // Footage that a shot was made of is laid as soon as it is open.
  const location = useLocation();
  const navigate = useNavigate();
  useEffect(() => {
    const brought = (location.state as { footage?: Brought } | null)?.footage;
    if (!brought) return;
    layFootage(brought, brought.name);
    void navigate('.', { replace: true, state: null, relative: 'path' });
  }, [location, navigate]);
  const bare = isFull || !shown;
  return (
    <div className={`flex min-h-0 flex-1 ${leftHanded ? 'flex-row-reverse' : ''}`}>
      <main className="relative flex min-w-0 flex-1 flex-col">
        <div className="flex min-h-0 flex-1">
          <StagePicture assembling />
        </div>
        {bare ? null : <TallStrip />}
        {bare ? null : <Foot />}
      </main>
      {bare ? null : plates ? (
        <aside aria-label="Plates" className="flex w-[368px] shrink-0 flex-col border-x border-soot-700 bg-soot-900">
          <ReferencesPanel />
        </aside>
      ) : shelfShown ? (
        <aside aria-label="Shelf" className="flex w-[368px] shrink-0 flex-col border-x border-soot-700 bg-soot-900">
          <ShelfPanel />
        </aside>
      ) : (
        <AssembleColumn />
      )}
      <KeysDialog />
    </div>
  );
}
