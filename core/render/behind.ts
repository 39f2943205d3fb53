/** The plates behind all planes, as the light falls on them. */
import { findAll, shotOf, type Id, type ShotDocument } from '../document/index.ts';
import { depthMatrix } from '../assembly/index.ts';
import { multiply, type Matrix } from '../geometry/index.ts';
import type { Surface } from '../canvas/index.ts';
import { plateBend, plateMatrix, platesAt } from './plates.ts';
import { drawLying } from './tilted-picture.ts';
import { cutOut } from './lay-draw-list.ts';
import type { RenderContext } from './render-context.ts';
import { plateLights, plateMatte } from './plane-wholes.ts';
import { DIMMED, type DrawOptions } from './draw-item.ts';
import { shine } from './shine.ts';

/** Plates that lie on a plane, between uses of elements. */
const onPlane = (doc: ShotDocument): Set<Id> =>
  new Set(findAll(doc, 'plane', shotOf(doc).planes).flatMap(({ placements }) => placements));

/** Draws the plates of a frame that lie behind all planes. What is not there yet is left out. @param guides whether those for working are seen. */
export function drawPlates(
  target: Surface,
  doc: ShotDocument,
  shotFrame: number,
  view: Matrix,
  rendering: RenderContext,
  options: DrawOptions,
  guides = options.guidePlates ?? options.guides,
): void {
  const plates = platesAt(doc, shotFrame, guides);
  if (plates.length === 0) return;
  const others = onPlane(doc);
  const seen = multiply(view, depthMatrix(doc, 0, shotFrame, options));
  const lightsOf = plateLights(doc, shotFrame, options);
  for (const { plate, asset } of plates) {
    const picture = others.has(plate.id) ? null : (rendering.assets?.(asset) ?? null);
    if (!picture) continue;
    const opacity = plate.opacity * (options.dimBut ? DIMMED : 1);
    const lights = lightsOf(plate.id);
    const matte = plateMatte(doc, plate, shotFrame, options);
    const on = lights.length > 0 || matte ? rendering.make(target.width, target.height) : target;
    const { width, height } = plate;
    const lying = { picture, width, height, bend: plateBend(plate) };
    drawLying(on, lying, multiply(seen, plateMatrix(plate)), on === target ? opacity : 1, rendering.make);
    if (on === target) continue;
    shine(on, lights, view);
    if (matte) cutOut(on, matte, view, rendering);
    target.context.setTransform(1, 0, 0, 1, 0, 0);
    target.context.globalAlpha = opacity;
    target.context.drawImage(on.picture, 0, 0);
    target.context.globalAlpha = 1;
  }
}
