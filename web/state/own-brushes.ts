/** The user's own variants of brushes, kept in this browser. */
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { quietStorage } from './memory.ts';
import { desk, setDesk, type BrushInHand, type Tool } from './desk.ts';

export interface Variant {
  readonly name: string;
  readonly tool: Tool;
  readonly brush: BrushInHand;
}
interface OwnBrushes {
  readonly own: readonly Variant[];
}

export const useOwnBrushes = create<OwnBrushes>()(
  persist((): OwnBrushes => ({ own: [] }), { name: 'tallow-brushes', storage: quietStorage() }),
);

const without = ({ tool, name }: Pick<Variant, 'tool' | 'name'>): readonly Variant[] =>
  useOwnBrushes.getState().own.filter((each) => each.tool !== tool || each.name !== name);

/** Keeps the brush in hand as it is under a name, in place of one of the same name. */
export function keepBrush(name: string): void {
  const { tool, brushes } = desk();
  useOwnBrushes.setState({ own: [...without({ tool, name }), { name, tool, brush: brushes[tool] }] });
}

/** Takes a variant in hand. */
export function takeVariant({ tool, brush }: Variant): void {
  const { brushes } = desk();
  setDesk({ tool, hand: 'draw', brushes: { ...brushes, [tool]: { ...brushes[tool], ...brush } } });
}

export function forgetBrush(variant: Variant): void {
  useOwnBrushes.setState({ own: without(variant) });
}
