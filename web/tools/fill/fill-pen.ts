/** The pen that fills: the region it lands in and those it is drawn across, a lasso, or a stroke that closes. */
import { apply, type Matrix, type Point } from '@tallow/core/geometry';
import { current } from '../../selection/current.ts';
import { say } from '../../shot/document.ts';
import { setFill, useFill, whyNotFill } from '../../fills/fill.ts';
import { changeFill, closeWith, fillAt, fillMany } from '../../fills/laying.ts';
import type { PenDoing, PenSample } from '../../hand/pen-doing.ts';
import { useFillWay } from './fill-way.ts';

/** Places looked at along a way the pen fills, at most. */
const PLACES = 40;

/** Begins where the pen lands. @param inward CSS px of the canvas to the active layer's space. */
export function beginFill(inward: Matrix, first: PenSample): PenDoing | null {
  const trouble = whyNotFill(current());
  if (trouble) {
    say(trouble);
    return null;
  }
  const { mode } = useFill.getState();
  const way: Point[] = [apply(inward, first)];
  const shows = mode === 'lasso' || mode === 'closing';
  const show = (): void => {
    if (shows) useFillWay.setState({ way: [...way] });
  };
  const over = (): void => {
    useFillWay.setState({ way: [] });
    setFill({ there: null });
  };
  show();
  return {
    move: (samples) => {
      for (const sample of samples) way.push(apply(inward, sample));
      show();
    },
    up: () => {
      over();
      const step = Math.max(1, Math.ceil(way.length / PLACES));
      if (mode === 'region') void fillAt(way.filter((_, i) => i % step === 0));
      else if (mode === 'lasso') void fillMany('lasso', way);
      else if (mode === 'closing') void closeWith(way);
      else void changeFill(mode, way[0]!);
      return true;
    },
    drop: over,
  };
}
