/** Actions of how the picture is looked at. */
import { key, named, of, shift } from '../actions/action.ts';
import { fittedView } from './view.ts';
import { setViewed, viewed } from './viewed.ts';
import { holding, shotSize, turnBy, zoomBy } from './viewing.ts';

const picture = of('Picture');
const tools = of('Tools');

export const VIEW_ACTIONS = named({
  zoomIn: picture('Zoom in', [key('Equal')], zoomBy(1.25)),
  zoomOut: picture('Zoom out', [key('Minus')], zoomBy(0.8)),
  turnLeft: picture('Turn left', [key('BracketLeft')], turnBy(-15)),
  turnRight: picture('Turn right', [key('BracketRight')], turnBy(15)),
  upright: picture('Upright', [shift('KeyR')], () => {
    setViewed({ fitted: false, view: { ...viewed().view, angle: 0 } });
  }),
  mirror: picture('Mirror', [key('KeyM')], () => {
    const { view: v } = viewed();
    setViewed({ view: { ...v, mirrored: !v.mirrored, angle: -v.angle, panX: -v.panX } });
  }),
  fit: picture('Fit', [key('Digit0')], () => {
    setViewed({ fitted: true, view: fittedView(shotSize(), viewed().area) });
  }),
  pan: picture('Hold to move the picture', [key('KeyT')], holding('pan').run, { release: holding('pan').release }),
  turn: picture('Hold to turn the picture', [key('KeyR')], holding('turn').run, { release: holding('turn').release }),
  width: tools('Hold and drag sideways for width', [key('KeyZ')], holding('width').run, {
    release: holding('width').release,
  }),
});
