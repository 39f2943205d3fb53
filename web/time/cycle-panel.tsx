/** The cycle: how its seam compares with its other steps, closing it, and where it begins and ends. */
import type { ElementTime } from '@tallow/core/document';
import { gapAt, resizeTime, setElement, shortestLength, startAt, turnRound } from '@tallow/core/edit';
import { fractionsFor } from '@tallow/core/between';
import { useState } from 'react';
import { Choice, NUMBERS, Words } from '../parts/choice.tsx';
import { Check, Line, Panel, Small } from '../parts/panel.tsx';
import { layIn, useBetween } from './between.ts';
import { useCurrent } from '../selection/current.ts';
import { setShowing, useShowing } from '../picture/showing.ts';
import { useSelection } from '../selection/selection.ts';
import { edit, say } from '../shot/document.ts';
import { showPanel } from '../screen/panels.ts';
import { goTo } from '../playback/playhead.ts';
import { useSeam, type SeamNow } from './seam.ts';
import { whyNotTime } from './time-edits.ts';
import { Joins } from './cycle-joins.tsx';
import { NumberRow } from './number-row.tsx';
import { Repeats } from './repeats.tsx';

const px = (length: number): string => `${Math.round(length)} px`;
const percent = (share: number): string => `${Math.round(share * 100)} %`;

/** From this many times the usual step on, the seam is seen. */
const SEEN = 1.6;

function Steps({ seam }: { seam: SeamNow }) {
  const { steps, ratio } = seam.report;
  const max = Math.max(1, ...steps.map(({ distance }) => distance));
  const width = 328;
  const each = width / steps.length;
  return (
    <svg
      width={width}
      height={54}
      className="block shrink-0 rounded-md bg-soot-950"
      role="img"
      aria-label="Step from each drawing to the next"
      data-testid="seam-steps"
    >
      {steps.map(({ distance }, i) => {
        const last = i === steps.length - 1;
        const high = Math.max(2, (44 * distance) / max);
        const tone = last ? (ratio !== null && ratio >= SEEN ? '#e6b450' : '#ffc25c') : '#6b6055';
        return (
          <rect key={i} x={i * each + 1} width={Math.max(1.5, each - 2)} y={50 - high} height={high} rx={2} fill={tone}>
            <title>{last ? `seam: ${px(distance)}` : `${i + 1} to ${i + 2}: ${px(distance)}`}</title>
          </rect>
        );
      })}
    </svg>
  );
}

function wordsOf({ report: { seam, usual, ratio } }: SeamNow): string {
  const far =
    ratio === null
      ? `The seam goes ${px(seam.distance)}; nothing else moves.`
      : ratio >= SEEN
        ? `The seam jumps: ${px(seam.distance)} where the other steps go ${px(usual.distance)}, ${ratio.toFixed(1)}× as far.`
        : ratio < 0.25
          ? `The seam nearly stands: ${px(seam.distance)} where the other steps go ${px(usual.distance)}. The last drawing repeats the first.`
          : ratio < 0.7
            ? `The seam goes ${px(seam.distance)}, the other steps ${px(usual.distance)}.`
            : `The seam goes ${px(seam.distance)}, like the other steps (${px(usual.distance)}).`;
  const large =
    seam.area > usual.area + 0.1
      ? ` Area changes by ${percent(seam.area)} there, by ${percent(usual.area)} elsewhere.`
      : ` Area changes by ${percent(seam.area)}.`;
  return far + large;
}

export function CyclePanel() {
  const now = useCurrent();
  const seam = useSeam(now);
  const leadsBack = useShowing((s) => s.leadsBack);
  const frame = useSelection((s) => s.frame);
  const count = useBetween((s) => s.count);
  const [more, setMore] = useState(false);
  if (!now) return null;
  const { element } = now;
  const isCycle = element.time === 'cycle';
  const last = seam?.frames.at(-1);
  const gap = now.active && last !== undefined ? gapAt(now.doc, now.active.layer.id, last) : null;
  const whyNotClose = !isCycle
    ? 'Make it a cycle first.'
    : (whyNotTime() ??
      (gap?.seam ? null : 'The last drawing does not lead to the first: there is a gap, or they are the same.'));
  return (
    <Panel
      label="Cycle"
      testId="cycle-panel"
      heading="Close the cycle"
      onBack={() => {
        showPanel(null);
      }}
    >
      <Words
        label="How the element ends"
        value={element.time}
        choices={[
          { value: 'open', label: 'open' },
          { value: 'cycle', label: 'cycle' },
          { value: 'one-shot', label: 'one-shot' },
        ]}
        onChoose={(time: ElementTime) => {
          if (time !== element.time)
            edit(time === 'cycle' ? 'close into a cycle' : `make it ${time}`, (doc) =>
              setElement(doc, element.id, { time }),
            );
        }}
      />
      {seam ? (
        <>
          <p className="py-1 text-[13px] text-wax-300" data-testid="seam-text">
            {wordsOf(seam)}
          </p>
          <Steps seam={seam} />
        </>
      ) : (
        <p className="py-1 text-[13px] text-wax-500">
          Three drawings on {now.active?.layer.name ?? 'a layer'} are enough to tell how its seam goes.
        </p>
      )}
      <div className="flex flex-wrap items-center gap-1.5 py-1.5">
        <Small
          title="Stand on the last drawing, the first one shown after it"
          whyNot={last === undefined ? 'There are too few drawings.' : null}
          onClick={() => {
            if (last !== undefined) goTo(last);
          }}
        >
          Go to the seam
        </Small>
        <Small
          whyNot={whyNotClose}
          title="From the last drawing to the first"
          onClick={() => {
            if (gap)
              layIn(gap, fractionsFor(gap.bare.length > 0 ? gap.bare.length : count, useBetween.getState().spread));
          }}
        >
          Lay {count} across it
        </Small>
        <Choice
          label="How many across the seam"
          value={count}
          choices={[1, 2, 3].map((n) => ({ value: n, label: n, name: `${n} across the seam` }))}
          each={NUMBERS}
          onChoose={(n) => {
            useBetween.setState({ count: n, shares: null });
          }}
        />
      </div>
      <Check
        label="Lead back: the first drawing as target in the last part"
        checked={leadsBack}
        onChange={(on) => {
          setShowing({ leadsBack: on });
        }}
      />
      <Line />
      <NumberRow
        key={now.length}
        label="Frames, all layers"
        default={now.length}
        min={shortestLength(now.doc, element.id)}
        max={10_000}
        verb="Set"
        onDo={(n) => {
          edit('length of the cycle', (doc) => resizeTime(doc, element.id, n));
          goTo(Math.min(frame, n - 1));
        }}
      />
      <div className="flex flex-wrap gap-1.5 py-1">
        <Small
          title="This frame becomes the first, on every layer"
          whyNot={isCycle ? (frame === 0 ? 'It begins here.' : null) : 'Only a cycle can begin elsewhere.'}
          onClick={() => {
            edit('begin the cycle here', (doc) => startAt(doc, element.id, frame));
            goTo(0);
          }}
        >
          Begin here
        </Small>
        <Small
          title="It runs backwards, on every layer"
          onClick={() => {
            edit('turn the time round', (doc) => turnRound(doc, element.id));
            goTo(frame);
          }}
        >
          Turn it round
        </Small>
        <Small
          title="Pairs of drawings that would make a good seam"
          whyNot={seam ? null : 'There are too few drawings.'}
          onClick={() => {
            setMore(!more);
            if (
              seam &&
              !more &&
              seam.joins.every(({ first, last: end }) => first === 0 && end === seam.drawings.length - 1)
            )
              say('Its own seam is the best there is.');
          }}
        >
          Where to cut
        </Small>
      </div>
      {more && seam ? <Joins now={now} seam={seam} /> : null}
      <Line />
      <Repeats now={now} />
    </Panel>
  );
}
