export { choice, type Control, control, type Settings, settingsOf } from './control.ts';
