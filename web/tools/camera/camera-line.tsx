/** What stands above the picture while one stands beside the camera. */
import { shotOf } from '@tallow/core/document';
import { useShotTime } from '../../playback/shot-time.ts';
import { useDocument } from '../../shot/document.ts';
import { ShotFrame } from '../place/shot-frame.tsx';

export function CameraLine() {
  const doc = useDocument((s) => s.doc);
  const frame = useShotTime((s) => s.frame);
  if (!doc) return null;
  return (
    <div className="flex min-w-0 flex-1 items-center gap-1 px-2">
      <ShotFrame frame={frame} length={shotOf(doc).length} />
      <span className="min-w-0 truncate text-wax-500">
        · beside the camera: drag its frame, zoom at a corner, turn at the knob
      </span>
    </div>
  );
}
