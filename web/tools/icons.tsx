/** Signs of the tools, as strokes of the brush they work on: one lifted off its place, one pulled at a point, one filled. */
import type { TakingIcon } from '../hand/tool.ts';

const frame = (size: number | string) => ({ width: size, height: size, viewBox: '0 0 24 24', 'aria-hidden': true });

/** A smear lifted off the place where it lay. */
export const PickIcon: TakingIcon = ({ size = 24 }) => (
  <svg {...frame(size)} fill="none" stroke="currentColor" strokeLinecap="round">
    <path d="M3.5 20.5c5.5 1 6-9.5 13-8.5" strokeWidth="3" opacity="0.35" />
    <path d="M7.5 13.500c5.5 1 6-9.5 13-8.5" strokeWidth="4" />
  </svg>
);

/** A smear drawn out at a point on it. */
export const ReshapeIcon: TakingIcon = ({ size = 24 }) => (
  <svg {...frame(size)} fill="none" stroke="currentColor" strokeLinecap="round">
    <path d="M2.5 19.5c5.5 0 5-8.5 7.5-10.500M21.5 19.500c-5.5 0-5-8.5-7.5-10.5" strokeWidth="2.8" />
    <rect x="8.6" y="3.6" width="6.8" height="6.8" rx="1" strokeWidth="1.8" transform="rotate(45 12 7)" />
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

/** A drop drawn out from where it was. */
export const SmearIcon: TakingIcon = ({ size = 24 }) => (
  <svg {...frame(size)} fill="none">
    <path
      d="M2.5 13.5c4-1.200 6.500-5.500 11.500-7.2a6.200 6.200 0 1 1 3.400 11.7c-5 .9-9-2.700-14.900-4.500Z"
      stroke="currentColor"
      strokeWidth="1.8"
      strokeLinejoin="round"
    />
    <path
      d="M7 18.600c2.600.6 4.600 1.900 7 2.200"
      stroke="currentColor"
      strokeWidth="1.8"
      strokeLinecap="round"
      opacity="0.55"
    />
  </svg>
);
