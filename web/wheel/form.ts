/** A form of the wheel, disc or band, as gestures see it: where a point lies on it. */

/** What the pen came down on. */
export type Zone =
  | { readonly kind: 'scrub' }
  | { readonly kind: 'ring'; readonly layerId: string; readonly pxPerFrame: number }
  | { readonly kind: 'reach'; readonly side: 'before' | 'after' }
  | { readonly kind: 'turn' };

export interface WheelSpot {
  /** Place on the element's time, in frames and parts of them. */
  readonly time: number;
  /** Angle about the disc's middle, radians; the band has none. */
  readonly angle: number;
  /** CSS px of the form's own box. */
  readonly x: number;
  readonly y: number;
}

/** A form of the wheel: where a point lies on it. */
export interface WheelForm {
  readonly spotOf: (event: { clientX: number; clientY: number }) => WheelSpot;
  readonly zoneOf: (spot: WheelSpot) => Zone | null;
}

/** Said beside the pen while something is dragged. */
export interface Beside {
  readonly x: number;
  readonly y: number;
  readonly text: string;
}
