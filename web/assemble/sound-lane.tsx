/** The sounds of the shot in the strip, below its planes: dragged, trimmed, faded, copied. */
import { shotOf, type ShotDocument } from '@tallow/core/document';
import { soundsOf, spanOfSound } from '@tallow/core/sound';
import { Volume2, VolumeX } from 'lucide-react';
import { useEffect, useMemo, useRef } from 'react';
import { act } from '../actions/action.ts';
import { titleOf } from '../actions/key-text.ts';
import { SOUND_ACTIONS } from '../sound/actions.ts';
import { useHearing } from '../sound/hearing.ts';
import { know, useRecordings } from '../sound/recordings.ts';
import { selectSound, usePlacing } from '../tools/place/placing.ts';
import type { InView } from './lane-canvas.tsx';
import { LANE_NAME } from './lane-row.tsx';
import { inRows, type Lane } from './lane.ts';
import { SoundHandle } from './sound-handle.tsx';
import { drawWave, waveHeight, type SoundBar } from './wave.ts';

const GAP = 3;
const topOf = (row: number, height: number): number => GAP + row * (height + GAP);

function Waves({ bars, view, width, height, each, rate, selected }: WavesProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const recordings = useRecordings();
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context || width === 0) return;
    const pixel = devicePixelRatio;
    context.setTransform(pixel, 0, 0, pixel, 0, 0);
    context.clearRect(0, 0, width, height);
    for (const bar of bars)
      drawWave(
        context,
        bar,
        recordings[bar.sound.asset],
        { view, width, top: topOf(bar.row, each), height: each, rate },
        bar.sound.id === selected,
      );
  }, [bars, view, width, height, each, rate, selected, recordings]);
  return (
    <canvas
      ref={canvas}
      width={Math.round(width * devicePixelRatio)}
      height={Math.round(height * devicePixelRatio)}
      className="pointer-events-none absolute inset-0"
      style={{ width, height }}
    />
  );
}

interface WavesProps {
  bars: readonly SoundBar[];
  view: InView;
  width: number;
  height: number;
  /** CSS px of one of them. */
  each: number;
  rate: number;
  selected: string | null;
}

export function SoundLane({
  doc,
  lanes,
  view,
  width,
}: {
  doc: ShotDocument;
  lanes: readonly Lane[];
  view: InView;
  width: number;
}) {
  const muted = useHearing((s) => s.muted);
  const selected = usePlacing((s) => s.sound);
  const recordings = useRecordings();
  const { rate, length } = shotOf(doc);
  const sounds = useMemo(() => soundsOf(doc), [doc]);
  const bars = useMemo(() => inRows(sounds.map((sound) => ({ sound, ...spanOfSound(sound, rate) }))), [sounds, rate]);
  useEffect(() => {
    for (const { asset } of sounds) know(asset);
  }, [sounds]);
  if (bars.length === 0) return null;
  const rows = Math.max(...bars.map(({ row }) => row + 1));
  const each = waveHeight(rows);
  const height = topOf(rows, each);
  return (
    <div className="mt-1 flex shrink-0" data-testid="sound-lane">
      <div className="flex shrink-0 items-start gap-0.5 pl-2 pt-1" style={{ width: LANE_NAME, minHeight: height }}>
        <button
          type="button"
          aria-label="Hear the sound"
          aria-pressed={!muted}
          data-tip={titleOf(SOUND_ACTIONS.mute)}
          className="moves grid size-6 shrink-0 place-items-center rounded text-wax-500 hover:bg-soot-800 hover:text-wax-100"
          onClick={() => {
            act(SOUND_ACTIONS.mute);
          }}
        >
          {muted ? <VolumeX size={14} /> : <Volume2 size={14} />}
        </button>
        <span className="min-w-0 flex-1 truncate pt-0.5 text-[13px] text-wax-300">{muted ? 'Silent' : 'Sound'}</span>
      </div>
      <div
        className="relative min-w-0 flex-1 overflow-hidden rounded-md bg-soot-900/60"
        style={{ height }}
        onPointerDown={() => {
          selectSound(null);
        }}
      >
        <Waves bars={bars} view={view} width={width} height={height} each={each} rate={rate} selected={selected} />
        {bars.map((bar) => (
          <SoundHandle
            key={bar.sound.id}
            bar={bar}
            lanes={lanes}
            view={view}
            width={width}
            top={topOf(bar.row, each)}
            height={each}
            rate={rate}
            length={length}
            state={recordings[bar.sound.asset]?.state ?? 'coming'}
            isSelected={bar.sound.id === selected}
          />
        ))}
      </div>
    </div>
  );
}
