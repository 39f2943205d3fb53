/** Holds typed as a row of numbers, and patterns of them on the shelf. */
import { shotOf } from '@tallow/core/document';
import { useState } from 'react';
import { Small } from '../parts/panel.tsx';
import { useDocument } from '../shot/document.ts';
import { NameField } from '../parts/name-field.tsx';
import { keep, useKeptOf } from '../shelf/kept.ts';
import { holdAlong, readHolds, whyNotStretch } from './stretch-edits.ts';
import { whyNotTime } from './time-edits.ts';

export function Holds({ whole }: { whole: boolean }) {
  const [text, setText] = useState('1, 1, 1, 2, 2, 3');
  const rate = useDocument((s) => (s.doc ? shotOf(s.doc).rate : 24));
  const holds = readHolds(text, rate);
  const whyNot = (whole ? whyNotTime() : whyNotStretch()) ?? (holds ? null : 'Whole numbers, such as 1, 1, 2');
  return (
    <>
      <div className="flex h-9 items-center gap-1">
        <span className="mr-auto text-[13px] text-wax-300">On</span>
        {[1, 2, 3, 4, 6, 8].map((n) => (
          <Small
            key={n}
            whyNot={whole ? whyNotTime() : whyNotStretch()}
            title={`Every drawing held for ${n}`}
            onClick={() => {
              holdAlong([n], whole);
            }}
          >
            {n}s
          </Small>
        ))}
      </div>
      <div className="flex h-9 items-center gap-2 text-[13px] text-wax-300">
        <label className="flex min-w-0 flex-1 items-center justify-between gap-2">
          Along a list
          <input
            className="field !h-8 w-36 font-mono"
            aria-label="Holds along a list"
            value={text}
            onChange={(event) => {
              setText(event.target.value);
            }}
            onKeyDown={(event) => {
              event.stopPropagation();
              if (event.key === 'Enter' && holds && !whyNot) holdAlong(holds, whole);
            }}
          />
        </label>
        <Small
          whyNot={whyNot}
          onClick={() => {
            if (holds) holdAlong(holds, whole);
          }}
        >
          Hold
        </Small>
      </div>
      <KeptHolds
        text={text}
        holds={holds}
        onTake={(taken) => {
          setText(taken.join(', '));
        }}
      />
    </>
  );
}

interface KeptHoldsProps {
  readonly text: string;
  /** What is typed, or null where it says nothing. */
  readonly holds: readonly number[] | null;
  readonly onTake: (holds: readonly number[]) => void;
}

/** Patterns of holds that stand on the shelf, and the one that is typed put there. */
function KeptHolds({ text, holds, onTake }: KeptHoldsProps) {
  const patterns = useKeptOf('holds');
  const [naming, setNaming] = useState(false);
  if (naming && holds)
    return (
      <NameField
        label="Name of the pattern"
        value={text}
        onDone={(name) => {
          setNaming(false);
          if (name) void keep('holds', name, { holds: [...holds] });
        }}
      />
    );
  return (
    <div className="flex flex-wrap items-center gap-1 pb-1">
      {patterns.map((kept) => (
        <Small
          key={kept.id}
          title={kept.what.holds.join(', ')}
          onClick={() => {
            onTake(kept.what.holds);
          }}
        >
          {kept.name}
        </Small>
      ))}
      <Small
        title="Puts this list on the shelf under a name"
        whyNot={holds ? null : 'Whole numbers, such as 1, 1, 2'}
        onClick={() => {
          setNaming(true);
        }}
      >
        Keep the list
      </Small>
    </div>
  );
}
