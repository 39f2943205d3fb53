/** Followed points to ride on, as a list of choices. */
import type { Rideable } from '@tallow/core/assembly';
import type { Seat } from '@tallow/core/document';

type On = Pick<Seat, 'onElementId' | 'onUseId' | 'traceId'>;

export const rideableKey = ({ onElementId, onUseId, traceId }: On): string =>
  [onElementId, onUseId ?? '', traceId].join(' ');

export const rideableLabel = ({ name, nth }: Rideable): string => `${name}, point ${nth + 1}`;

/** Whether that is what is ridden on. */
export const isSeat = (point: On, seat: On): boolean => rideableKey(point) === rideableKey(seat);
