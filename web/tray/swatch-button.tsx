/** A swatch as a smear of its colour, with its name where there is room. */
import { WholeName } from '../parts/whole-name.tsx';
import { find, type Swatch } from '@tallow/core/document';
import { useShallow } from 'zustand/react/shallow';
import { useOfCurrent } from '../selection/current.ts';
import { BrushMark } from './brush-mark.tsx';

const SMEAR = { kind: 'ink', width: 9, opacity: 1, pressure: true } as const;

interface SwatchButtonProps {
  swatch: Swatch;
  selected: boolean;
  /** With its name under it, without, or beside it. */
  form: 'named' | 'small' | 'row';
  onPress: () => void;
}

const FORMS = {
  named: { width: 46, height: 20, look: 'h-9 w-[50px] flex-col pb-0.5' },
  small: { width: 34, height: 20, look: 'h-[22px] w-[37px] justify-center' },
  row: { width: 34, height: 20, look: 'h-8 w-full gap-2 px-1.5' },
} as const;

export function SwatchButton({ swatch, selected, form, onPress }: SwatchButtonProps) {
  const running = useOfCurrent(
    useShallow(({ doc }) =>
      swatch.gradient?.stops.map((stop) => find(doc, 'swatch', stop.swatch)?.colour ?? swatch.colour),
    ),
  );
  const { width, height, look } = FORMS[form];
  return (
    <WholeName name={swatch.name} always={form === 'small'}>
      <button
        type="button"
        data-testid="swatch"
        data-name={swatch.name}
        aria-label={form === 'small' ? swatch.name : undefined}
        aria-pressed={selected}
        data-tip={`${swatch.role} · press again to change it`}
        onClick={onPress}
        className={`moves flex shrink-0 items-center rounded-lg ${look} ${selected ? 'bg-[#3a3a3a]' : 'hover:bg-[#2d2d2d]'}`}
      >
        <BrushMark brush={SMEAR} colour={swatch.colour} running={running} width={width} height={height} lean={0.3} />
        {form === 'small' ? null : (
          <span
            className={`truncate text-wax-300 ${form === 'row' ? 'min-w-0 text-left text-[13px]' : 'w-full px-1 text-center text-[11px] leading-tight'}`}
          >
            {swatch.name}
          </span>
        )}
      </button>
    </WholeName>
  );
}
