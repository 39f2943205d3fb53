/** Whether something shown has words of its own, or only pictures. */
import { Children, isValidElement, type ReactNode } from 'react';

export const hasWords = (shown: ReactNode): boolean =>
  Children.toArray(shown).some((each) =>
    isValidElement<{ children?: ReactNode }>(each)
      ? hasWords(each.props.children)
      : (typeof each === 'string' && /\S/.test(each)) || typeof each === 'number',
  );
