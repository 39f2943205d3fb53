/** The user's own variants of brushes, kept in this browser. */
import { create } from 'zustand';
import { persist } from 'zustand/middleware';
import { quietStorage } from '../memory/memory.ts';
import { held, setHeld, takeBrush } from '../hand/held.ts';
import { type BrushInHand, type BrushName } from '../hand/brushes.ts';

export interface Variant {
  readonly name: string;
  readonly tool: BrushName;
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
  const { brushName: tool, brushes } = held();
  useOwnBrushes.setState({ own: [...without({ tool, name }), { name, tool, brush: brushes[tool] }] });
}

/** Takes a variant in hand. */
export function takeVariant({ tool, brush }: Variant): void {
  const { brushes } = held();
  takeBrush(tool);
  setHeld({ brushes: { ...brushes, [tool]: { ...brushes[tool], ...brush } } });
}

export function forgetBrush(variant: Variant): void {
  useOwnBrushes.setState({ own: without(variant) });
}
