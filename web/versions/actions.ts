/** Actions of versions. */
import { named, of } from '../actions/action.ts';
import { showVersions, useVersions } from './versions.ts';

const general = of('General');

export const VERSION_ACTIONS = named({
  versions: general('Versions: stages to go back to', [{ code: 'KeyV', alt: true, shift: true }], () => {
    showVersions(!useVersions.getState().shown);
  }),
});
