/** Signs of the kinds of smear, each a thing with what is made of it. */
import type { SmearForm } from '@tallow/core/document';
import type { ReactNode } from 'react';

const DROP = <circle cx={25} cy={10} r={4.6} fill="currentColor" />;

const PICTURES: Readonly<Record<SmearForm, ReactNode>> = {
  stretch: (
    <path d="M3 10.800c7-.6 12-5.400 19-5.400a4.700 4.700 0 0 1 0 9.400c-7 0-12-3.200-19-4Z" fill="currentColor" />
  ),
  swath: (
    <path
      d="M3 13.500C7 5.500 17 2.500 27 6.500c1.500 3 .8 7.500-2 9.500-2.500-4.500-11-6.500-22-2.500Z"
      fill="currentColor"
      opacity={0.8}
    />
  ),
  trail: (
    <>
      <path d="M3 10.200 24 6.600v6.800Z" fill="currentColor" opacity={0.5} />
      {DROP}
    </>
  ),
  copies: (
    <>
      {[6, 12.5, 19].map((x, i) => (
        <circle
          key={x}
          cx={x}
          cy={10}
          r={4.6}
          fill="none"
          stroke="currentColor"
          strokeWidth={1.3}
          opacity={0.45 + 0.2 * i}
        />
      ))}
      {DROP}
    </>
  ),
  lines: (
    <>
      <path
        d="M3 6.500h13M6 10h11M2 13.500h14"
        stroke="currentColor"
        strokeWidth={1.5}
        strokeLinecap="round"
        opacity={0.7}
      />
      {DROP}
    </>
  ),
};

export function KindPicture({ form }: { form: SmearForm }) {
  return (
    <svg width={32} height={20} viewBox="0 0 32 20" aria-hidden>
      {PICTURES[form]}
    </svg>
  );
}
