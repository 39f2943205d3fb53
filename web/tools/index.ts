/** Every tool, with what is seen of it. A new one is a folder of its own and an entry here. */
import type { ComponentType } from 'react';
import type { Tool } from '../hand/tool.ts';
import { CameraLine } from './camera/camera-line.tsx';
import { CameraOverlay } from './camera/camera-overlay.tsx';
import { CAMERA } from './camera/tool.ts';
import { DROPPER } from './dropper/tool.ts';
import { FillOverlay } from './fill/fill-overlay.tsx';
import { FillPanel } from './fill/fill-panel.tsx';
import { FILL } from './fill/tool.ts';
import { PickOverlay } from './pick/pick-overlay.tsx';
import { PickPanel } from './pick/pick-panel.tsx';
import { PICK } from './pick/tool.ts';
import { ReferencesPanel } from './plate/references-panel.tsx';
import { PlateOverlay } from './plate/plate-overlay.tsx';
import { PLATE } from './plate/tool.ts';
import { PlaceLine } from './place/place-line.tsx';
import { PlaceOverlay } from './place/place-overlay.tsx';
import { PLACE } from './place/tool.ts';
import { POINT } from './point/tool.ts';
import { ReshapeOverlay } from './reshape/reshape-overlay.tsx';
import { ReshapePanel } from './reshape/reshape-panel.tsx';
import { RESHAPE } from './reshape/tool.ts';
import { SmearButton } from './smear/smear-button.tsx';
import { SmearOverlay } from './smear/smear-overlay.tsx';
import { SmearPanel } from './smear/smear-panel.tsx';
import { SMEAR } from './smear/tool.ts';
import { TRACE } from './trace/tool.ts';
import { TraceLine } from './trace/trace-line.tsx';

/** What is seen of a tool while it is active. */
interface ToolSeen {
  readonly tool: Tool;
  /** Its settings, in the column. */
  readonly Panel?: ComponentType;
  /** What it shows over the picture. */
  readonly Overlay?: ComponentType;
  /** Its button in the tray, where it does more than make it active. */
  readonly Button?: ComponentType;
  /** What stands above the picture in place of what the pen will touch. */
  readonly Above?: ComponentType;
}

/** In the order of their buttons and keys. */
export const TOOLS: readonly ToolSeen[] = [
  { tool: PICK, Panel: PickPanel, Overlay: PickOverlay },
  { tool: RESHAPE, Panel: ReshapePanel, Overlay: ReshapeOverlay },
  { tool: FILL, Panel: FillPanel, Overlay: FillOverlay },
  { tool: SMEAR, Panel: SmearPanel, Overlay: SmearOverlay, Button: SmearButton },
  { tool: TRACE, Above: TraceLine },
  { tool: DROPPER },
  { tool: PLATE, Panel: ReferencesPanel, Overlay: PlateOverlay },
  { tool: POINT },
  { tool: PLACE, Overlay: PlaceOverlay, Above: PlaceLine },
  { tool: CAMERA, Overlay: CameraOverlay, Above: CameraLine },
];

/** What is seen of the active tool: nothing where the pen draws. */
export const seenOf = (tool: Tool | null): Partial<ToolSeen> => TOOLS.find((each) => each.tool === tool) ?? {};
