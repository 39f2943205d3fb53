/** The user's own variants of brushes, kept in this browser. */
import { create } from 'zustand';
import { desk, setDesk, type BrushInHand, type Tool } from './desk.ts';

const NAME = 'tallow-brushes';

export interface Variant {
  readonly name: string;
  readonly tool: Tool;
  readonly brush: BrushInHand;
}

function kept(): readonly Variant[] {
  try {
    return JSON.parse(localStorage.getItem(NAME) ?? '[]') as readonly Variant[];
  } catch {
    localStorage.removeItem(NAME);
    return [];
  }
}

export const useOwnBrushes = create<{ own: readonly Variant[] }>(() => ({ own: kept() }));

const write = (own: readonly Variant[]): void => {
  localStorage.setItem(NAME, JSON.stringify(own));
  useOwnBrushes.setState({ own });
};

/** Keeps the brush in hand as it is under a name, in place of one of the same name. */
export function keepBrush(name: string): void {
  const { tool, brushes } = desk();
  const others = useOwnBrushes.getState().own.filter((each) => each.tool !== tool || each.name !== name);
  write([...others, { name, tool, brush: brushes[tool] }]);
}

/** Takes a variant in hand. */
export function takeVariant({ tool, brush }: Variant): void {
  const { brushes } = desk();
  setDesk({ tool, hand: 'draw', brushes: { ...brushes, [tool]: { ...brushes[tool], ...brush } } });
}

export function forgetBrush({ tool, name }: Variant): void {
  write(useOwnBrushes.getState().own.filter((each) => each.tool !== tool || each.name !== name));
}
