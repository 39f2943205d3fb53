/**
 * Bolt: a line bent again and again at its middle, more at large than at small scale, with forks that have a
 * reach of their own. A strike is full length within one or two drawings, lives for a few with small shifts, thins,
 * and lets go from its start; the next strike goes elsewhere. All outlines are straight-sided unions.
 */
import { clamp, mix } from '../geometry/index.ts';
import { GUIDE_PAINT, samplesOf } from './circles.ts';
import { control } from '../controls/index.ts';
import { starterFill, type LaidFrame, type LaidMark, type Scene, type StarterKind } from './starter.ts';
import { impactAt } from './bolt-impact.ts';
import { strikeOf, endsOf, branchesOf, strikeRings } from './bolt-strike.ts';

function draw(scene: Scene, index: number): LaidFrame {
  const { settings } = scene;
  const strike = strikeOf(settings, index);
  const empty: LaidFrame = { guide: [], impact: [], core: [], body: [], glow: [] };
  const lives = Math.round(settings['lives']!);
  const width = settings['width']!;
  if (!strike) {
    // The after-glow: one drawing in which the air still shines where it went.
    const before = index > 0 ? strikeOf(settings, index - 1) : null;
    if (!before || settings['glow'] === 0) return empty;
    const branches = branchesOf(scene, before).slice(0, 1);
    return {
      ...empty,
      glow: starterFill('glow', strikeRings(branches, 0, 1, width * 1.5), (settings['glow']! / 100) * 0.5),
    };
  }
  const branches = branchesOf(scene, strike);
  const grows = Math.round(settings['grows']!);
  const to = grows <= 1 ? 1 : clamp((strike.age + 1) / grows, 0, 1);
  // It lets go over its last drawings: while its end still grows thin, its start is already gone.
  const going = Math.max(0, strike.age - (lives - 1 - Math.round(settings['letsGo']!)));
  const from = going === 0 ? 0 : clamp((going / (Math.round(settings['letsGo']!) + 1)) * 1.05, 0, 0.92);
  const strength = strike.age === 0 && grows > 1 ? 0.7 : mix(1, 0.5, strike.age / Math.max(1, lives));
  const full = strikeRings(branches, from, to, width * strength);
  const hot = strikeRings(
    branches.filter((b) => b.share > 0.3),
    from,
    to,
    width * strength * 0.42,
  );
  const glow: LaidMark[] =
    settings['glow'] === 0
      ? []
      : starterFill(
          'glow',
          strikeRings(branches.slice(0, 1), from, to, width * 4.2 * strength),
          (settings['glow']! / 100) * 0.34,
        );
  const end = branches[0]!.points.at(-1)!;
  return {
    guide: [{ paint: 'guide', samples: samplesOf(endsOf(scene, strike.number).pivots), width: 3, opacity: 0.8 }],
    impact: impactAt(scene, strike, end),
    core: starterFill('hot', hot),
    body: starterFill('bolt', full),
    glow,
  };
}

export const BOLT: StarterKind = {
  effect: 'bolt',
  name: 'Bolt',
  says: 'Lightning that strikes, shifts, lets go and strikes again',
  offered: 'first',
  telling: 0.09,
  cycles: () => false,
  follows: 'path',
  stands: 'edges',
  length: 24,
  hold: 1,
  controls: [
    control('length', 'Length', 'px', [40, 2400, 5], 760),
    control('direction', 'Direction', '°', [0, 360, 1], 275),
    control('width', 'Width', 'px', [3, 120, 1], 26),
    control('coarse', 'Crooked at large', '%', [0, 100, 1], 62),
    control('middle', 'Crooked between', '%', [0, 100, 1], 66),
    control('fine', 'Crooked at small', '%', [0, 100, 1], 40),
    control('forks', 'Forks', '', [0, 12, 1], 4),
    control('reach', 'Reach of forks', '%', [5, 80, 1], 34),
    control('strikes', 'Strikes', '', [1, 12, 1], 3),
    control('lives', 'A strike lives', 'drawings', [2, 12, 1], 6, 'more'),
    control('dark', 'Dark between', 'drawings', [0, 24, 1], 2, 'more'),
    control('grows', 'Full length after', 'drawings', [1, 4, 1], 2, 'more'),
    control('letsGo', 'Lets go over', 'drawings', [1, 6, 1], 2, 'more'),
    control('elsewhere', 'Strikes elsewhere', '%', [0, 100, 1], 55, 'more'),
    control('glow', 'Glow', '%', [0, 100, 1], 60, 'more'),
    control('impact', 'Splash where it hits', 'px', [0, 600, 2], 120, 'more'),
  ],
  outputs: [
    { key: 'guide', name: 'Bolt way', role: 'guide', hidden: true },
    { key: 'impact', name: 'Bolt hit', role: 'glow' },
    { key: 'core', name: 'Bolt core', role: 'glow' },
    { key: 'body', name: 'Bolt', role: 'body' },
    { key: 'glow', name: 'Bolt glow', role: 'glow' },
  ],
  paints: [
    { key: 'bolt', name: 'bolt', role: 'body', colour: '#a9b8ff' },
    { key: 'hot', name: 'bolt core', role: 'core', colour: '#ffffff' },
    { key: 'glow', name: 'bolt glow', role: 'light', colour: '#5d6fd6' },
    GUIDE_PAINT,
  ],
  presets: [
    { name: 'Strike', settings: {} },
    { name: 'Many forks', settings: { forks: 9, reach: 50, coarse: 48, width: 20 } },
    {
      name: 'Crackle',
      settings: {
        length: 220,
        width: 8,
        forks: 2,
        coarse: 80,
        fine: 70,
        lives: 3,
        dark: 1,
        strikes: 6,
        impact: 0,
        grows: 1,
        letsGo: 1,
      },
    },
  ],
  moods: {
    calm: { coarse: 40, middle: 40, fine: 20, forks: 1, strikes: 1, lives: 8 },
    crackling: { coarse: 60, fine: 75, forks: 5, strikes: 6, lives: 3, dark: 1, letsGo: 1 },
    angry: { coarse: 80, middle: 85, fine: 60, forks: 9, reach: 55, strikes: 4, lives: 5 },
    menacing: { coarse: 70, middle: 55, fine: 25, forks: 6, reach: 70, strikes: 2, lives: 8, dark: 6 },
  },
  draw,
};
