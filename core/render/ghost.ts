/**
 * Ghosts of neighbouring drawings for the onion skin: the outline of what is drawn, in the colour of
 * its side, with a thin dark edge so that it reads on light and on dark.
 */
import { fillPath, wipe, type Surface } from '../canvas/index.ts';
import type { Placed } from './render-context.ts';

export interface GhostLook {
  /** The side's colour. */
  readonly colour: string;
  /** Broken lines for the drawings after. */
  readonly broken: boolean;
  /** 0 to 1. The weakest can still be read: it is fainter and thinner, but its dark edge stays. */
  readonly strength: number;
  /** Lines whole; filled drawings as their outline, or tinted whole under that outline. */
  readonly style: 'line' | 'outline' | 'full';
}

/** The edge round ghosts; against it and against bright fire alike a ghost keeps 3:1. */
const EDGE_STRENGTH = 0.85;
/** What the weakest ghost has of its colour: on black that still is 3:1. */
const FAINTEST = 0.7;
const TINT = 0.34;

const EDGE = '#100c0a';
const DIRECTIONS = 16;
const ALPHA_GAIN = 3;

/** Everything within `reach` device px of the picture in one colour; without the picture itself if `hollow`. */
function rim(target: Surface, { picture, left, top }: Placed, reach: number, colour: string, hollow: boolean): void {
  wipe(target);
  const { context, width, height } = target;
  for (let i = 0; i < DIRECTIONS; i++) {
    const angle = (i / DIRECTIONS) * 2 * Math.PI;
    context.setTransform(1, 0, 0, 1, Math.cos(angle) * reach, Math.sin(angle) * reach);
    context.drawImage(picture, left, top);
  }
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'source-in';
  context.fillStyle = colour;
  context.fillRect(0, 0, width, height);
  context.globalCompositeOperation = 'destination-out';
  if (hollow) for (let i = 0; i < ALPHA_GAIN; i++) context.drawImage(picture, left, top);
  context.globalCompositeOperation = 'source-over';
}

/** Cuts gaps into what a surface holds: zigzag stripes, so that a line breaks whichever way it runs. */
function breakUp(
  { context, width, height }: Surface,
  dash: number,
  { left, top }: { left: number; top: number },
): void {
  const leg = dash * 2.4;
  context.setTransform(1, 0, 0, 1, -left, -top);
  context.globalCompositeOperation = 'destination-out';
  context.fillStyle = '#000000';
  context.beginPath();
  const row = dash * 2.2;
  for (let y = -leg + row * Math.max(0, Math.floor((top - dash) / row)); y < top + height; y += row) {
    const turns = Math.ceil((left + width) / leg) + 1;
    const at = (i: number) => y + (i % 2) * leg;
    context.moveTo(0, at(0));
    for (let i = 1; i <= turns; i++) context.lineTo(i * leg, at(i));
    for (let i = turns; i >= 0; i--) context.lineTo(i * leg, at(i) + dash);
  }
  fillPath(context);
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'source-over';
}

/** How far a ghost reaches past its drawing, device px. */
export const ghostReach = (pixel: number): number => Math.ceil(3.5 * pixel) + 1;

/**
 * Draws the ghost of a drawing's picture, alone, onto an emptied surface.
 * @param scratch of the target's size; what it holds is lost.
 * @param picture where it lies on the target.
 * @param pixel device pixels per CSS pixel, so that ghosts are as thick on every screen.
 * @param at the device pixel that is the target's first: broken lines break at the same places wherever it lies.
 */
export function drawGhost(
  target: Surface,
  scratch: Surface,
  picture: Placed,
  look: GhostLook,
  pixel: number,
  at = { left: 0, top: 0 },
): void {
  wipe(target);
  const { context } = target;
  const hollow = look.style !== 'line';
  const put = (strength: number) => {
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = strength;
    context.drawImage(scratch.picture, 0, 0);
    context.globalAlpha = 1;
  };
  if (look.style === 'full') {
    tint(scratch, picture, look.colour);
    put(TINT * (FAINTEST + (1 - FAINTEST) * look.strength));
  }
  const layRim = (reach: number, colour: string, strength: number) => {
    rim(scratch, picture, reach, colour, hollow);
    if (look.broken) breakUp(scratch, 5 * pixel, at);
    put(strength);
  };
  const thickness = (hollow ? 1.35 + 0.75 * look.strength : 0.2 + 0.2 * look.strength) * pixel;
  layRim(thickness + pixel, EDGE, EDGE_STRENGTH);
  layRim(thickness, look.colour, FAINTEST + (1 - FAINTEST) * look.strength);
}

/** What a picture covers, in one colour. */
function tint(target: Surface, { picture, left, top }: Placed, colour: string): void {
  wipe(target);
  const { context, width, height } = target;
  context.drawImage(picture, left, top);
  context.globalCompositeOperation = 'source-in';
  context.fillStyle = colour;
  context.fillRect(0, 0, width, height);
  context.globalCompositeOperation = 'source-over';
}
