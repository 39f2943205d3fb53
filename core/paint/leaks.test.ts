import fc from 'fast-check';
import { leaksOf } from './leaks.ts';
import { paintableOf, regionAt } from './fill.ts';
import type { Barrier } from './raster.ts';
import { OUTSIDE } from './regions.ts';

const SIDE = 640;
const RADIUS = 260;
const MIDDLE = { x: SIDE / 2, y: SIDE / 2 };

/** A ring of dabs with gaps of some widths, px, at some angles. */
function ring(gaps: readonly { readonly at: number; readonly width: number }[]): Barrier {
  const cover = new Uint8Array(SIDE * SIDE);
  const steps = RADIUS * 7;
  for (let i = 0; i < steps; i++) {
    const angle = (i / steps) * 2 * Math.PI;
    const isOpen = gaps.some(({ at, width }) => Math.abs(angle - at) * RADIUS < width / 2 + 3);
    if (isOpen) continue;
    const [cx, cy] = [MIDDLE.x + RADIUS * Math.cos(angle), MIDDLE.y + RADIUS * Math.sin(angle)];
    for (let y = Math.floor(cy - 3); y <= cy + 3; y++)
      for (let x = Math.floor(cx - 3); x <= cx + 3; x++)
        if ((x - cx) ** 2 + (y - cy) ** 2 <= 9) cover[y * SIDE + x] = 255;
  }
  return { width: SIDE, height: SIDE, left: 0, top: 0, scale: 1, cover, colour: null };
}

const gaps = fc
  // What is drawn 10 px wide can be a hair under 8 across, between the pixels: that is closed.
  .tuple(fc.integer({ min: 12, max: 70 }), fc.integer({ min: 12, max: 70 }), fc.integer({ min: 0, max: 100 }))
  .map(([first, second, turn]) => [
    { at: 1 + turn / 100, width: first },
    { at: 4 + turn / 100, width: second },
  ]);

describe('where a large region runs out', () => {
  // With a Gap of 1 all is looked over at full size, with 8 at a third of it and at full size in the gaps.
  it('is the same looked over small as looked over whole', () => {
    fc.assert(
      fc.property(gaps, (open) => {
        const barrier = ring(open);
        const [small, whole] = [leaksOf(barrier, MIDDLE, 8), leaksOf(barrier, MIDDLE, 1)];
        // Both sides may meet a pixel or two beside the narrowest place.
        expect(Math.abs(small.minGap! - whole.minGap!)).toBeLessThanOrEqual(2);
        expect(small.places).toHaveLength(2);
        for (const place of small.places) {
          // On the way through a gap its width grows by 2 px only after the root of its narrowest: so far apart the same place may be met.
          const near = 8 + Math.sqrt(2 * place.width);
          const same = whole.places.find((each) => Math.hypot(each.x - place.x, each.y - place.y) < near);
          expect(same).toBeDefined();
          expect(Math.abs(place.width - same!.width)).toBeLessThanOrEqual(2);
        }
        // What is said holds: with that Gap the place is enclosed.
        const closed = paintableOf(barrier, { gap: small.minGap!, under: null });
        expect(regionAt(closed, MIDDLE)).toBeGreaterThan(OUTSIDE);
      }),
      {
        numRuns: 12,
        examples: [
          [
            [
              { at: 1.73, width: 65 },
              { at: 4.73, width: 12 },
            ],
          ],
        ],
      },
    );
  });

  it('is nowhere where it is closed, or where there is no line', () => {
    expect(leaksOf(ring([]), MIDDLE, 8).places).toEqual([]);
    expect(leaksOf(ring([]), { x: 5, y: 5 }, 8)).toEqual({ places: [], minGap: null });
  });
});
