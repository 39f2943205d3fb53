/** Signs of the tools, as strokes of the brush they work on: one lifted off its place, one pulled at a point, one filled. */
import type { TakingIcon } from '../hand/tool.ts';

const frame = (size: number | string) => ({ width: size, height: size, viewBox: '0 0 24 24', 'aria-hidden': true });

/** A smear lifted off the place where it lay. */
export const PickIcon: TakingIcon = ({ size = 24 }) => (
  <svg {...frame(size)} fill="none">
    <path
      d="M3 20.5c3.6.9 5.2-1.4 7-4s3.6-4.4 7.4-4"
      stroke="currentColor"
      strokeWidth="1.6"
      strokeLinecap="round"
      strokeDasharray="1.2 3.2"
    />
    <path
      d="M6.4 13.6C9.8 14.6 11 12 12.6 8.6 14 5.6 16 3.2 21 4c-3.2.6-4 2.8-5.2 5.6-1.8 4.2-4.4 7.4-9.4 4Z"
      fill="currentColor"
    />
  </svg>
);

/** A smear drawn out to where a point was pulled. */
export const ReshapeIcon: TakingIcon = ({ size = 24 }) => (
  <svg {...frame(size)} fill="none">
    <path
      d="M2.5 19c4 .4 5.4-3 7-7.2.8-2.2 1.6-3.6 2.5-4.6.9 1 1.7 2.4 2.5 4.6 1.6 4.2 3 7.6 7 7.2-4.6 2.6-6.8-.4-8-3.6-.7-1.9-1.1-2.6-1.5-2.6s-.8.7-1.5 2.6c-1.2 3.2-3.4 6.2-8 3.6Z"
      fill="currentColor"
    />
    <circle cx="12" cy="4" r="2.2" stroke="currentColor" strokeWidth="1.6" />
  </svg>
);

/** A line that closes, with what it holds. */
export const FillIcon: TakingIcon = ({ size = 24 }) => (
  <svg {...frame(size)} fill="none">
    <path
      d="M12 3c.8 3.6 7 6.2 7 11a7 7 0 0 1-14 0c0-2.8 2-4 2.6-6C8.7 9 9.3 9.7 9.4 11 11 9.2 12.2 6.8 12 3Z"
      stroke="currentColor"
      strokeWidth="1.8"
      strokeLinejoin="round"
    />
    <path d="M6.9 14.600c2.2 1.3 3.6-.6 5.2-.4 1.8.2 2.9 1.5 5 .3a5.1 5.1 0 0 1-10.2.1Z" fill="currentColor" />
  </svg>
);
