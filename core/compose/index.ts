export { keepsShape, movesOutlines, resolved, type Resolved, takesBelow } from './resolve.ts';
export { cutRing, wavered } from './waver.ts';
export { finished, finishReach } from './finish.ts';
export { tilted, type Untilted, untiltedOf } from './tilt.ts';
