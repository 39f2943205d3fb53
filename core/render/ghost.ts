/**
 * Ghosts of neighbouring drawings for the onion skin: the outline of what is drawn, in the colour of
 * its side, with a thin dark edge so that it reads on light and on dark.
 */
import { wipe, type Picture, type Surface } from './surface.ts';

export interface GhostLook {
  /** The side's colour. */
  readonly colour: string;
  /** Broken lines for the drawings after. */
  readonly broken: boolean;
  /** 0 to 1. */
  readonly strength: number;
  /** Only the outline, for drawings with filled shapes; lines are shown whole. */
  readonly outline: boolean;
}

const EDGE = '#100c0a';
const DIRECTIONS = 16;
const ALPHA_GAIN = 3;

/** Everything within `reach` device px of the picture in one colour; without the picture itself if `hollow`. */
function rim(target: Surface, source: Picture, reach: number, colour: string, hollow: boolean): void {
  wipe(target);
  const { context, width, height } = target;
  for (let i = 0; i < DIRECTIONS; i++) {
    const angle = (i / DIRECTIONS) * 2 * Math.PI;
    context.setTransform(1, 0, 0, 1, Math.cos(angle) * reach, Math.sin(angle) * reach);
    context.drawImage(source, 0, 0);
  }
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'source-in';
  context.fillStyle = colour;
  context.fillRect(0, 0, width, height);
  context.globalCompositeOperation = 'destination-out';
  if (hollow) for (let i = 0; i < ALPHA_GAIN; i++) context.drawImage(source, 0, 0);
  context.globalCompositeOperation = 'source-over';
}

/** Cuts gaps into what a surface holds: zigzag stripes, so that a line breaks whichever way it runs. */
function breakUp({ context, width, height }: Surface, dash: number): void {
  const leg = dash * 2.4;
  context.globalCompositeOperation = 'destination-out';
  context.fillStyle = '#000000';
  context.beginPath();
  for (let y = -leg; y < height; y += dash * 2.2) {
    const turns = Math.ceil(width / leg) + 1;
    const at = (i: number) => y + (i % 2) * leg;
    context.moveTo(0, at(0));
    for (let i = 1; i <= turns; i++) context.lineTo(i * leg, at(i));
    for (let i = turns; i >= 0; i--) context.lineTo(i * leg, at(i) + dash);
    context.closePath();
  }
  context.fill();
  context.globalCompositeOperation = 'source-over';
}

/**
 * Lays the ghost of a drawing's picture onto a surface of the same size.
 * @param scratch of the target's size; what it holds is lost.
 * @param pixel device pixels per CSS pixel, so that ghosts are as thick on every screen.
 */
export function layGhost(target: Surface, scratch: Surface, picture: Picture, look: GhostLook, pixel: number): void {
  const { context } = target;
  const layRim = (reach: number, colour: string, strength: number) => {
    rim(scratch, picture, reach, colour, look.outline);
    if (look.broken) breakUp(scratch, 5 * pixel);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = strength;
    context.drawImage(scratch.picture, 0, 0);
    context.globalAlpha = 1;
  };
  const thickness = look.outline ? 2 * pixel : 0.4 * pixel;
  layRim(thickness + pixel, EDGE, look.strength * 0.8);
  layRim(thickness, look.colour, look.strength);
}
