/** What of the desk this browser remembers between visits: what is in hand and how it is seen. */
import { recall, remember } from './memory.ts';
import { desk, setDesk, TOOLS, useDesk, type DeskState } from './desk.ts';

const NAME = 'tallow-desk';
const REMEMBERED = [
  'tool',
  'form',
  'closes',
  'brushes',
  'onion',
  'shapeLine',
  'newOnHeld',
  'hubRuns',
  'loops',
  'speed',
  'pingPong',
  'sheetPictures',
  'looks',
] as const satisfies readonly (keyof DeskState)[];

type Remembered = Pick<DeskState, (typeof REMEMBERED)[number]>;

const pick = (state: DeskState): Remembered =>
  Object.fromEntries(REMEMBERED.map((key) => [key, state[key]])) as unknown as Remembered;

/** Takes what was remembered and goes on remembering. What cannot be read is passed over. */
export function rememberDesk(): void {
  const kept = (recall(NAME) ?? {}) as Partial<Remembered>;
  const usual = pick(desk());
  setDesk({
    ...usual,
    ...kept,
    brushes: Object.fromEntries(
      TOOLS.map((tool) => [tool, { ...usual.brushes[tool], ...kept.brushes?.[tool] }]),
    ) as unknown as Remembered['brushes'],
    onion: { ...usual.onion, ...kept.onion },
  });
  useDesk.subscribe((now, before) => {
    if (REMEMBERED.some((key) => now[key] !== before[key])) remember(NAME, pick(now));
  });
}
