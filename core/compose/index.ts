export { keepsShape, movesOutlines, resolved, type Resolved, takesBelow } from './resolve.ts';
export { cutRing, wavered } from './waver.ts';
export { paintedLooks, lookReach } from './paint-looks.ts';
export { tilted, type Untilted, untiltedOf } from './tilt.ts';
