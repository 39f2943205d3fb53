/** What can be done with a thing that stands in the shot, beside its name: put out or on, taken away, back to all of them. */
import { Trash2, type LucideIcon } from 'lucide-react';
import { Small } from '../parts/panel.tsx';

interface ThingButtonsProps {
  /** What it is, as in "Take the light away". */
  readonly thing: string;
  /** What a press on the first button does now, and its sign for how it is. */
  readonly toggle: { readonly label: string; readonly icon: LucideIcon; readonly onPress: () => void };
  readonly onTakeAway: () => void;
  readonly onAll: () => void;
}

export function ThingButtons({ thing, toggle: { label, icon: Icon, onPress }, onTakeAway, onAll }: ThingButtonsProps) {
  const takes = `Take the ${thing} away`;
  return (
    <>
      <Small name={label} title={label} onClick={onPress}>
        <Icon size={14} />
      </Small>
      <Small name={takes} title={takes} onClick={onTakeAway}>
        <Trash2 size={14} />
      </Small>
      <Small title="All that stands in the shot" onClick={onAll}>
        All
      </Small>
    </>
  );
}
