/**
 * Tips: what a control does, told beside it. Every control says it in `data-tip`; one layer shows it, for the mouse and the pen
 * that rest on it, for a finger that stays on it, and for who goes from control to control by keys.
 */
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { createPortal } from 'react-dom';

/** ms that mouse and pen rest on a control, and a finger stays on it, before its tip comes. */
const REST_MS = 550;
const STAY_MS = 600;
/** ms after a tip within which the next comes at once. */
const WARM_MS = 400;
/** ms that a tip stays after the finger has gone, to be read. */
const READ_MS = 2500;
/** CSS px that a finger may stray without dragging. */
const STRAY = 8;
/** Between a control and its tip, and a tip and the edge of the window, CSS px. */
const GAP = 6;

const ID = 'tip';
const tippedAt = (target: EventTarget | null): HTMLElement | null =>
  target instanceof Element ? target.closest<HTMLElement>('[data-tip]') : null;

/** The control that a finger may ask; not one that is held for what it does. */
const askedAt = (target: EventTarget | null): HTMLElement | null => {
  const element = tippedAt(target);
  return element?.hasAttribute('data-holds') ? null : element;
};

interface Tip {
  readonly text: string;
  readonly by: DOMRect;
}

/** Watches pen, mouse, finger and focus. @returns how to stop. */
function watchTips(show: (tip: Tip | null) => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let on: HTMLElement | null = null;
  let isShown = false;
  let lastShown = -Infinity;
  /** The finger has opened a tip: what it does when it goes is not what was meant. */
  let swallows = false;
  let finger = { x: 0, y: 0 };
  const hide = (): void => {
    clearTimeout(timer);
    if (isShown) lastShown = performance.now();
    if (on?.getAttribute('aria-describedby') === ID) on.removeAttribute('aria-describedby');
    on = null;
    if (isShown) show(null);
    isShown = false;
  };
  const showOf = (element: HTMLElement): void => {
    const text = element.dataset['tip'];
    if (!text || !element.isConnected) return;
    isShown = true;
    show({ text, by: element.getBoundingClientRect() });
  };
  const soon = (element: HTMLElement, ms: number, then?: () => void): void => {
    hide();
    on = element;
    timer = setTimeout(() => {
      showOf(element);
      then?.();
    }, ms);
  };
  const listeners: { [type in keyof DocumentEventMap]?: (event: DocumentEventMap[type]) => void } = {
    pointerover: (event) => {
      if (event.pointerType === 'touch' || event.buttons !== 0) return;
      const element = tippedAt(event.target);
      if (element === on) return;
      if (element) soon(element, performance.now() - lastShown < WARM_MS || isShown ? 0 : REST_MS);
      else hide();
    },
    pointerdown: (event) => {
      hide();
      swallows = false;
      const element = event.pointerType === 'touch' ? askedAt(event.target) : null;
      finger = { x: event.clientX, y: event.clientY };
      if (element)
        soon(element, STAY_MS, () => {
          swallows = true;
        });
    },
    pointermove: (event) => {
      // A finger that goes on drags, or scrolls.
      if (event.pointerType !== 'touch' || !on) return;
      if (Math.hypot(event.clientX - finger.x, event.clientY - finger.y) > STRAY) hide();
    },
    pointerup: (event) => {
      if (event.pointerType !== 'touch') return;
      clearTimeout(timer);
      if (isShown) timer = setTimeout(hide, READ_MS);
      else hide();
    },
    pointercancel: hide,
    click: (event) => {
      if (!swallows) return;
      swallows = false;
      event.preventDefault();
      event.stopPropagation();
    },
    focusin: (event) => {
      const element = tippedAt(event.target);
      if (!element || element !== event.target || !element.matches(':focus-visible')) return;
      soon(element, REST_MS, () => {
        if (!element.hasAttribute('aria-describedby')) element.setAttribute('aria-describedby', ID);
      });
    },
    focusout: hide,
    keydown: () => {
      // What is pressed by a key was not asked by a finger.
      swallows = false;
      hide();
    },
    scroll: hide,
  };
  const all = Object.entries(listeners) as [string, (event: Event) => void][];
  for (const [type, listen] of all) document.addEventListener(type, listen, { capture: true });
  return () => {
    hide();
    for (const [type, listen] of all) document.removeEventListener(type, listen, { capture: true });
  };
}

export function TipLayer() {
  const [tip, setTip] = useState<Tip | null>(null);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => watchTips(setTip), []);
  useLayoutEffect(() => {
    const element = box.current;
    if (!element || !tip) return;
    const { width, height } = element.getBoundingClientRect();
    const { by } = tip;
    const below = by.bottom + GAP;
    const top = below + height + GAP <= innerHeight ? below : Math.max(GAP, by.top - GAP - height);
    const left = by.left + by.width / 2 - width / 2;
    element.style.top = `${top}px`;
    element.style.left = `${Math.max(GAP, Math.min(innerWidth - width - GAP, left))}px`;
  }, [tip]);
  if (!tip) return null;
  return createPortal(
    <div
      ref={box}
      id={ID}
      role="tooltip"
      className="pointer-events-none fixed left-0 top-0 z-[100] max-w-72 rounded-md border border-soot-700 bg-soot-950 px-2 py-1 text-xs text-wax-100 shadow-xl"
    >
      {tip.text}
    </div>,
    document.body,
  );
}
