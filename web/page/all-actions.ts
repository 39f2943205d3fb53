/** Everything that can be done by a key: what the keyboard and the page of keys are made from. A room's list is entered here. */
import type { Action } from '../actions/action.ts';
import { EXPORT_ACTIONS } from '../export/again.ts';
import { LAYER_ACTIONS } from '../layers/actions.ts';
import { BRUSH_ACTIONS, PEN_ACTIONS } from '../pen/actions.ts';
import { PICTURE_ACTIONS } from '../picture/actions.ts';
import { SCREEN_ACTIONS } from '../screen/actions.ts';
import { SHELF_ACTIONS } from '../shelf/actions.ts';
import { SWATCH_ACTIONS } from '../swatches/recent.ts';
import { TIME_ACTIONS } from '../time/actions.ts';
import { TOOLS } from '../tools/index.ts';
import { CAMERA_ACTIONS } from '../tools/camera/actions.ts';
import { SOUND_ACTIONS } from '../sound/actions.ts';
import { PLACE_ACTIONS } from '../tools/place/actions.ts';
import { PICK_ACTIONS } from '../tools/pick/actions.ts';
import { ALL_ACTIONS } from '../tools/pick/all.ts';
import { SMEAR_TOOL_ACTIONS } from '../tools/smear/tool.ts';
import { SMEAR_ACTIONS } from '../smears/actions.ts';
import { TRACE_ACTIONS } from '../tools/trace/actions.ts';
import { CLEAN_ACTIONS } from '../stage/clean.ts';
import { TONE_ACTIONS } from '../tone/actions.ts';
import { VERSION_ACTIONS } from '../versions/actions.ts';
import { VIEW_ACTIONS } from '../view/actions.ts';

export const ACTIONS: readonly Action[] = [
  ...Object.values(TIME_ACTIONS),
  ...Object.values(CLEAN_ACTIONS),
  ...Object.values(PICTURE_ACTIONS),
  ...Object.values(LAYER_ACTIONS),
  ...Object.values(VIEW_ACTIONS),
  ...Object.values(BRUSH_ACTIONS),
  ...Object.values(PEN_ACTIONS),
  ...Object.values(SWATCH_ACTIONS),
  ...TOOLS.flatMap(({ tool }) => tool.taking ?? []),
  ...Object.values(TRACE_ACTIONS),
  ...Object.values(SMEAR_TOOL_ACTIONS),
  ...Object.values(SMEAR_ACTIONS),
  ...Object.values(ALL_ACTIONS),
  ...Object.values(PICK_ACTIONS),
  ...Object.values(PLACE_ACTIONS),
  ...Object.values(CAMERA_ACTIONS),
  ...Object.values(SOUND_ACTIONS),
  ...Object.values(TONE_ACTIONS),
  ...Object.values(SHELF_ACTIONS),
  ...Object.values(VERSION_ACTIONS),
  ...Object.values(SCREEN_ACTIONS),
  ...Object.values(EXPORT_ACTIONS),
];
