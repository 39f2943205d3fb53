/**
 * Hears the shot: the one owner of what the page sounds. While it plays, the sound's own clock is the clock of the picture, so
 * that neither runs away from the other; where nothing is heard, or no sound can be had, the machine's clock is.
 */
import type { ShotDocument, Sound } from '@tallow/core/document';
import { soundsOf, stretchesOf, voicesOf } from '@tallow/core/sound';
import type { Played, PlayClock } from './clock.ts';
import { bufferOf } from './recordings.ts';
import { beginVoice, type Sounding } from './voice.ts';

/** How far ahead voices are begun, s of hearing. */
const AHEAD_S = 0.6;
/** Between asking for a voice and its first sample, s. */
const LEAD_S = 0.03;
/** A clock that has stood still for so long, ms, is none: its device may be gone. */
const STILL_MS = 500;
/** How long a context may take to begin, ms. */
const START_MS = 400;
/** How much of the recording is heard on a frame that is gone to, s at least. */
const GLIMPSE_S = 0.08;

const sameSounds = (a: readonly Sound[], b: readonly Sound[]): boolean =>
  a.length === b.length && a.every((sound, i) => sound === b[i]);

export class Ear implements PlayClock {
  private context: AudioContext | null = null;
  private sounding = new Set<Sounding>();
  private glimpsed = new Set<Sounding>();
  /** The page's moment that was the beginning, ms, while the machine's clock is gone by. */
  private began = 0;
  /** The sound's moment that was the beginning, s, while its clock is gone by. */
  private zero: number | null = null;
  /** What was played and heard when voices were last begun, and the beat from which none has been. */
  private heard: { readonly played: Played; readonly sounds: readonly Sound[] } | null = null;
  private nextBeat = 0;
  /** Whether the next voices are those of the very beginning. */
  private isFirst = true;
  private stood = { at: -1, since: 0 };
  private muted = false;

  /** Whether anything is to be heard at all. */
  mute(on: boolean): void {
    this.muted = on;
    if (on) this.hush(this.glimpsed);
  }

  private soundsIn(doc: ShotDocument): readonly Sound[] {
    return this.muted ? [] : soundsOf(doc).filter(({ heard }) => heard);
  }

  /** The context, on its way to run. It may only be made once the user has done something. */
  private opened(): AudioContext | null {
    if (typeof AudioContext === 'undefined') return null;
    this.context ??= new AudioContext({ latencyHint: 'interactive' });
    if (this.context.state === 'suspended') void this.context.resume();
    return this.context;
  }

  private running(): AudioContext | null {
    return this.context?.state === 'running' ? this.context : null;
  }

  /** The moment of the context that is heard at a moment of the page, s. */
  private heardAt(context: AudioContext, time: number): number {
    const { contextTime, performanceTime } = context.getOutputTimestamp();
    // Some engines say nothing of what has come out yet: then it is what has been made, less what lies between.
    return contextTime && performanceTime
      ? contextTime + (time - performanceTime) / 1000
      : context.currentTime - (context.outputLatency || context.baseLatency || 0);
  }

  async ready({ doc }: Played): Promise<void> {
    const sounds = this.soundsIn(doc);
    if (sounds.length === 0) return;
    const context = this.opened();
    for (const { asset } of sounds) bufferOf(asset, this.anew);
    if (!context || context.state === 'running') return;
    await Promise.race([context.resume(), new Promise((late) => setTimeout(late, START_MS))]);
  }

  begin(played: Played, time: number): void {
    this.end();
    this.began = time;
    const context = this.running();
    if (!context || this.soundsIn(played.doc).length === 0) return;
    this.goBy(context, context.currentTime + LEAD_S, time);
    this.isFirst = true;
  }

  private goBy(context: AudioContext, zero: number, time: number): void {
    this.zero = zero;
    this.stood = { at: context.currentTime, since: time };
  }

  elapsed(played: Played, time: number): number {
    const sounds = this.soundsIn(played.doc);
    const context = this.running();
    const before = this.passed(time);
    if (sounds.length === 0 || !context || this.standsStill(context, time)) {
      this.goBack(before, time);
      return before;
    }
    if (this.zero === null) {
      // Sound comes in while it plays: it goes on from where the picture is.
      this.opened();
      this.goBy(context, this.heardAt(context, time) - before / 1000, time);
      [this.heard, this.isFirst] = [null, false];
    }
    this.tend(context, played, sounds);
    return before;
  }

  /** ms of playing until a moment of the page. */
  private passed(time: number): number {
    const context = this.running();
    if (this.zero === null || !context) return Math.max(0, time - this.began);
    return Math.max(0, (this.heardAt(context, time) - this.zero) * 1000);
  }

  private standsStill(context: AudioContext, time: number): boolean {
    if (context.currentTime !== this.stood.at) this.stood = { at: context.currentTime, since: time };
    // One that is not gone by any more is gone by again as soon as it moves.
    else if (this.zero === null) return true;
    return time - this.stood.since > STILL_MS;
  }

  /** Back to the machine's clock, without a jump. */
  private goBack(passed: number, time: number): void {
    if (this.zero === null) return;
    this.zero = null;
    this.began = time - passed;
    this.hush(this.sounding);
    this.heard = null;
  }

  /** Begins the voices that are due soon. */
  private tend(context: AudioContext, played: Played, sounds: readonly Sound[]): void {
    const { frames, from, rate, speed, loops } = played;
    const perBeat = 1 / (rate * speed);
    const zero = this.zero!;
    const before = this.heard;
    const isSame =
      before?.played.frames === frames &&
      before.played.from === from &&
      before.played.rate === rate &&
      before.played.speed === speed &&
      before.played.loops === loops &&
      sameSounds(before.sounds, sounds);
    if (!isSame) {
      this.hush(this.sounding);
      if (this.isFirst) this.nextBeat = 0;
      else this.nextBeat = Math.max(0, Math.ceil((context.currentTime + LEAD_S / 2 - zero) / perBeat));
      this.heard = { played, sounds };
      this.isFirst = false;
    }
    const stretches = stretchesOf(frames);
    while (zero + this.nextBeat * perBeat < context.currentTime + AHEAD_S) {
      if (frames.length === 0 || (!loops && from + this.nextBeat >= frames.length)) return;
      const place = (from + this.nextBeat) % frames.length;
      const stretch = stretches.find(({ at, length }) => place >= at && place < at + length);
      if (!stretch) {
        this.nextBeat += 1;
        continue;
      }
      const gone = place - stretch.at;
      const rest = { from: stretch.from + gone, length: stretch.length - gone };
      for (const voice of voicesOf(sounds, rest, rate, speed)) {
        const buffer = bufferOf(voice.sound.asset, this.anew);
        if (!buffer) continue;
        this.add(this.sounding, (ended) =>
          beginVoice(context, buffer, voice, zero + this.nextBeat * perBeat, speed, ended),
        );
      }
      this.nextBeat += rest.length;
    }
  }

  private add(among: Set<Sounding>, begin: (ended: () => void) => Sounding): void {
    const one: Sounding = begin(() => {
      among.delete(one);
    });
    among.add(one);
  }

  /** A recording has come: what is heard is begun anew with it. */
  private readonly anew = (): void => {
    if (this.heard) this.heard = { ...this.heard, sounds: [] };
  };

  private hush(some: Set<Sounding>): void {
    for (const each of some) each.stop();
    some.clear();
  }

  end(): void {
    this.hush(this.sounding);
    this.hush(this.glimpsed);
    this.zero = null;
    this.heard = null;
    this.isFirst = true;
  }

  /** Lets a frame that is gone to be heard for a moment. @param rate frames a second. */
  glimpse(doc: ShotDocument, frame: number, rate: number): void {
    this.hush(this.glimpsed);
    const sounds = this.soundsIn(doc);
    if (sounds.length === 0) return;
    const context = this.opened();
    if (!context) return;
    const length = Math.max(1, Math.ceil(GLIMPSE_S * rate));
    for (const voice of voicesOf(sounds, { from: frame, length }, rate, 1)) {
      const buffer = bufferOf(voice.sound.asset, () => undefined);
      if (buffer) this.add(this.glimpsed, (ended) => beginVoice(context, buffer, voice, context.currentTime, 1, ended));
    }
  }
}

/** The page's ear. */
export const ear = new Ear();
