/** Pointer and Escape on the wheel: begins, follows, ends and takes back what the pen drags. */
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import { current } from '../selection/current.ts';
import { beginDrag, type Drag } from './drags.ts';
import type { Beside, WheelForm, WheelSpot } from './form.ts';
import { capturePointer } from '../parts/dragging.ts';

interface Going extends Drag {
  readonly pointer: number;
  readonly from: WheelSpot;
  /** Scrubbing follows the form as it scrolls; all else is measured by the form as it was when the pen came down. */
  readonly spotOf: WheelForm['spotOf'] | null;
  moved: boolean;
}

/** Pointer listeners for a form of the wheel, and what is said beside the pen. */
export function useGestures(form: WheelForm) {
  const drag = useRef<Going | null>(null);
  const [beside, setBeside] = useState<Beside | null>(null);

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.code !== 'Escape' || !drag.current) return;
      event.preventDefault();
      event.stopPropagation();
      drag.current.back();
      drag.current = null;
      setBeside(null);
    };
    addEventListener('keydown', onKey, { capture: true });
    return () => {
      removeEventListener('keydown', onKey, { capture: true });
    };
  }, []);

  return {
    beside,
    onPointerDown: (event: PointerEvent<HTMLElement>): void => {
      if (event.button !== 0 || drag.current) return;
      const now = current();
      const spot = form.spotOf(event);
      const zone = form.zoneOf(spot);
      if (!now || !zone) return;
      capturePointer(event.currentTarget, event);
      const begun = beginDrag(now, zone, spot, { alt: event.altKey, ctrl: event.ctrlKey || event.metaKey });
      if (!begun) return;
      const spotOf = zone.kind === 'scrub' ? null : form.spotOf;
      drag.current = { ...begun, pointer: event.pointerId, from: spot, spotOf, moved: false };
    },
    onPointerMove: (event: PointerEvent<HTMLElement>): void => {
      const going = drag.current;
      if (going?.pointer !== event.pointerId) return;
      const spot = (going.spotOf ?? form.spotOf)(event);
      if (!going.moved && Math.hypot(spot.x - going.from.x, spot.y - going.from.y) < 3) return;
      going.moved = true;
      const text = going.move(spot);
      setBeside(text ? { x: spot.x, y: spot.y, text } : null);
    },
    onPointerUp: (event: PointerEvent<HTMLElement>): void => {
      const going = drag.current;
      if (going?.pointer !== event.pointerId) return;
      drag.current = null;
      going.up(going.moved);
      setBeside(null);
    },
    onPointerCancel: (event: PointerEvent<HTMLElement>): void => {
      const going = drag.current;
      if (going?.pointer !== event.pointerId) return;
      drag.current = null;
      going.back();
      setBeside(null);
    },
  };
}
