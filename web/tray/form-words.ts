/** The forms a stroke can have, in words. */
import type { FigureForm } from '@tallow/core/brush';
import {
  Circle,
  CircleDotDashed,
  Pencil,
  RectangleHorizontal,
  Slash,
  Rainbow,
  Spline,
  Waypoints,
  type LucideIcon,
} from 'lucide-react';

export const FORM_WORDS: Readonly<Record<FigureForm, { label: string; does: string; icon: LucideIcon }>> = {
  free: { label: 'Freehand', does: 'The stroke follows the pen', icon: Pencil },
  line: { label: 'Straight line', does: 'From where the pen lands to where it lifts', icon: Slash },
  polyline: {
    label: 'Point to point',
    does: 'Point by point; the last one twice, the first one, or Enter ends it',
    icon: Waypoints,
  },
  rectangle: { label: 'Rectangle', does: 'From corner to corner', icon: RectangleHorizontal },
  ellipse: { label: 'Ellipse', does: 'From corner to corner of its box', icon: CircleDotDashed },
  circle: { label: 'Circle', does: 'From its middle outwards, always round', icon: Circle },
  arc: { label: 'Arc', does: 'First its ends, then a place it passes', icon: Rainbow },
  curve: {
    label: 'Curve through points',
    does: 'Point by point, each can be dragged; the first or the last one again, or Enter, ends it',
    icon: Spline,
  },
};
