/** What is active: the brush and how it draws, the swatch, and what the pen does. Never saved with the shot. */
import type { FigureForm } from '@tallow/core/brush';
import type { Id } from '@tallow/core/document';
import type { Ruler } from '@tallow/core/geometry';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import type { Action } from '../actions/action.ts';
import { keptAs } from '../memory/memory.ts';
import { atOpening } from '../shot/opening.ts';
import { BRUSH_NAMES, BRUSHES, type BrushState, type BrushName } from './brushes.ts';
import type { Tool } from './tool.ts';

export interface ToolState {
  readonly brushName: BrushName;
  readonly brushes: Readonly<Record<BrushName, BrushState>>;
  readonly form: FigureForm;
  /** Lines level, plumb or every 15 degrees; squares for rectangles, circles for ellipses. */
  readonly exact: boolean;
  /** Strokes that nearly close, close. */
  readonly closes: boolean;
  /** Whether the pen draws behind what is there. */
  readonly behind: boolean;
  /** A straight edge in shot px that strokes snap to: its middle, and the direction it runs in, radians. */
  readonly ruler: Ruler | null;
  /** A line of its own round shapes: its width in px, or null for none. */
  readonly shapeLine: number | null;
  /** Whether the pen on a later frame of a hold begins a new drawing there. */
  readonly newOnHeld: boolean;
  /** Whether each stroke leads on to the next drawing. */
  readonly goesOn: boolean;
  /** Whether a drawing that is made in going on begins with what is there: a stem, a crack, lettering that grows. */
  readonly grows: boolean;
  readonly swatchId: Id | null;
  /** The tool in place of the drawing pen, or null where the pen draws. */
  readonly activeTool: Tool | null;
  /** What the button on the pen's barrel does. */
  readonly barrel: string;
  /** Whether the column shows the settings of the active brush. */
  readonly brushShown: boolean;
}

/** As it is when a shot opens. */
const FRESH = {
  ruler: null,
  goesOn: false,
  grows: false,
  swatchId: null,
  activeTool: null,
} as const satisfies Partial<ToolState>;

const FIRST_BRUSHES = Object.fromEntries(BRUSH_NAMES.map((name) => [name, BRUSHES[name].default])) as Readonly<
  Record<BrushName, BrushState>
>;

const mendBrushes = (kept: Partial<ToolState>, preset: ToolState): Partial<ToolState> => ({
  ...kept,
  brushes: Object.fromEntries(
    BRUSH_NAMES.map((name) => [name, { ...preset.brushes[name], ...kept.brushes?.[name] }]),
  ) as ToolState['brushes'],
});

export const useToolState = create<ToolState>()(
  persist(
    (): ToolState => ({
      ...FRESH,
      brushName: 'ink',
      brushes: FIRST_BRUSHES,
      form: 'free',
      exact: false,
      closes: false,
      behind: false,
      shapeLine: null,
      newOnHeld: false,
      barrel: 'colour',
      brushShown: false,
    }),
    keptAs<ToolState>(
      'tallow-held',
      ['brushName', 'form', 'closes', 'brushes', 'shapeLine', 'newOnHeld', 'barrel'],
      mendBrushes,
    ),
  ),
);
export const toolState = useToolState.getState;
export const setToolState = useToolState.setState;

atOpening(() => {
  setToolState(FRESH);
});

/** Makes a tool active, or null for the drawing pen; where it has settings, those of the brush give way. */
export function takeTool(tool: Tool | null): void {
  const before = toolState().activeTool;
  if (before !== tool) before?.putDown?.();
  setToolState(tool?.hasPanel ? { activeTool: tool, brushShown: false } : { activeTool: tool });
}

/** Makes a brush active. */
export function takeBrush(brushName: BrushName): void {
  takeTool(null);
  setToolState({ brushName });
}

/** Changes the active brush. */
export function setBrush(settings: Partial<BrushState>): void {
  const { brushes, brushName } = toolState();
  setToolState({ brushes: { ...brushes, [brushName]: { ...brushes[brushName], ...settings } } });
}

/** Makes a tool; its action makes it active, and puts it down again. */
export function makeTool({ taking, ...rest }: Omit<Tool, 'taking'> & { taking?: Omit<Action, 'run'> }): Tool {
  const tool: Tool = {
    ...rest,
    taking: taking
      ? {
          ...taking,
          run: () => {
            takeTool(toolState().activeTool === tool ? null : tool);
          },
        }
      : null,
  };
  return tool;
}

/** Whether a tool is active. */
export const useIsHeld = (tool: Tool): boolean => useToolState((s) => s.activeTool === tool);
