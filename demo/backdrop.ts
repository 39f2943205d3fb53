/** Still drawings behind the demo's effects: plain shapes in few tones, so that the effect is the brightest thing. */
import type { Id, Mark, NewId } from '@tallow/core/document';
import { polygonRing, seededRandom } from '@tallow/core/geometry';

type Pair = [number, number];

/** Collects shapes in shot px, lowest first. */
export class Backdrop {
  readonly marks: Mark[] = [];

  constructor(
    private readonly swatch: (key: string) => Id,
    private readonly newId: NewId,
  ) {}

  fill(key: string, ...polygons: Pair[][]): this {
    const rings = polygons.map(polygonRing);
    this.marks.push({ kind: 'shape', id: this.newId(), swatch: this.swatch(key), rings, rule: 'evenodd', opacity: 1 });
    return this;
  }

  box(key: string, left: number, top: number, right: number, bottom: number): this {
    return this.fill(key, [
      [left, top],
      [right, top],
      [right, bottom],
      [left, bottom],
    ]);
  }

  disc(key: string, x: number, y: number, r: number, flat = 1): this {
    const points = Array.from({ length: 40 }, (_, i): Pair => {
      const angle = (i / 40) * 2 * Math.PI;
      return [x + r * Math.cos(angle), y + r * flat * Math.sin(angle)];
    });
    return this.fill(key, points);
  }
}

/** A roof of the glassworks at night, an iron vent in front of the sky. */
export function roofAtNight(swatch: (key: string) => Id, newId: NewId): Mark[] {
  const random = seededRandom(77);
  const picture = new Backdrop(swatch, newId).box('sky1', -80, -80, 2000, 1160);
  picture.fill('sky2', [
    [-80, 520],
    [420, 420],
    [900, 470],
    [1420, 380],
    [2000, 450],
    [2000, 1160],
    [-80, 1160],
  ]);
  picture.disc('moon', 1560, 210, 74).disc('sky1', 1590, 194, 66);
  for (let i = 0; i < 34; i++) picture.disc('star', random() * 1920, random() * 400, 1.4 + 1.8 * random());
  // Far roofs, then the near one with its lit panes.
  const far: Pair[] = [[-80, 1160]];
  for (let i = 0; i <= 12; i++) {
    const x = -80 + i * 180;
    far.push([x, 660 - (i % 3) * 46], [x + 92, 600 - (i % 2) * 60 - (i % 3) * 30]);
  }
  picture.fill('far', [...far, [2100, 1160]]);
  picture.fill('roof', [
    [-80, 900],
    [760, 740],
    [1980, 880],
    [1980, 1160],
    [-80, 1160],
  ]);
  for (let i = 0; i < 6; i++) {
    const x = 1010 + i * 150;
    const y = 772 + i * 17;
    picture.fill(i % 3 === 1 ? 'paneHot' : 'pane', [
      [x, y + 24],
      [x + 118, y + 38],
      [x + 118, y + 250],
      [x, y + 236],
    ]);
  }
  picture.fill('vent', [
    [600, 1000],
    [620, 800],
    [640, 800],
    [640, 770],
    [820, 770],
    [820, 800],
    [840, 800],
    [860, 1000],
  ]);
  picture.box('ventLit', 640, 770, 662, 1000).box('ventRim', 618, 752, 842, 782).box('ventLit', 618, 752, 842, 759);
  return picture.marks;
}

/** The swatches of the workshop: name, role and colour of each. */
export const WORKSHOP = {
  wall: ['wall', 'hole', '#171419'],
  glow1: ['glow 1', 'hole', '#1d1719'],
  glow2: ['glow 2', 'hole', '#261a18'],
  glow3: ['glow 3', 'hole', '#331d17'],
  glow4: ['glow 4', 'hole', '#432316'],
  floor: ['floor', 'shade', '#110f12'],
  floorLit: ['floor edge', 'light', '#2c2224'],
  stone: ['stone', 'shade', '#241c1c'],
  mouth: ['mouth', 'light', '#8c3a14'],
  mouthHot: ['mouth hot', 'light', '#d9671b'],
  mouthCore: ['mouth core', 'core', '#ffb851'],
  block: ['block', 'shade', '#2b2426'],
  blockLit: ['block lit', 'light', '#5b4437'],
  beam: ['beam', 'shade', '#100e11'],
} as const;

/** A bench in the glassworks, a furnace glowing at one side and a block to catch the glass. */
export function gatherRoom(swatch: (key: string) => Id, newId: NewId): Mark[] {
  const picture = new Backdrop(swatch, newId).box('wall', -80, -80, 2000, 1160);
  for (let i = 0; i < 4; i++) picture.disc(`glow${i + 1}`, 90, 700, 560 - i * 110, 0.92);
  picture.box('floor', -80, 930, 2000, 1160).box('floorLit', -80, 930, 2000, 938);
  picture.fill('stone', [
    [-80, 300],
    [150, 300],
    [240, 420],
    [240, 930],
    [-80, 930],
  ]);
  picture.disc('mouth', 120, 640, 108).disc('mouthHot', 120, 648, 84).disc('mouthCore', 120, 660, 54);
  picture.fill('block', [
    [1330, 930],
    [1370, 800],
    [1690, 800],
    [1730, 930],
  ]);
  picture.box('blockLit', 1370, 800, 1690, 812).fill('block', [
    [1440, 800],
    [1452, 780],
    [1608, 780],
    [1620, 800],
  ]);
  for (let i = 0; i < 5; i++) picture.box('beam', 360 + i * 340, -80, 384 + i * 340, 220 + (i % 2) * 30);
  picture.box('beam', -80, 90, 2000, 128);
  return picture.marks;
}

/** The skylight seen from below at night: iron bars over a storm. */
export function skylight(swatch: (key: string) => Id, newId: NewId): { sky: Mark[]; bars: Mark[] } {
  const sky = new Backdrop(swatch, newId).box('storm1', -80, -80, 2000, 1160);
  sky.fill('storm2', [
    [-80, 120],
    [360, 60],
    [700, 170],
    [1180, 70],
    [1600, 190],
    [2000, 110],
    [2000, 420],
    [1480, 360],
    [980, 470],
    [500, 360],
    [-80, 460],
  ]);
  sky.fill('storm3', [
    [-80, 560],
    [440, 500],
    [900, 610],
    [1500, 520],
    [2000, 600],
    [2000, 820],
    [-80, 800],
  ]);
  sky.fill('town', [
    [-80, 1160],
    [-80, 900],
    [180, 900],
    [180, 850],
    [300, 850],
    [340, 800],
    [380, 850],
    [620, 850],
    [620, 905],
    [900, 905],
    [960, 820],
    [1020, 905],
    [1290, 905],
    [1290, 860],
    [1560, 860],
    [1560, 910],
    [2000, 910],
    [2000, 1160],
  ]);
  const bars = new Backdrop(swatch, newId);
  for (let i = 0; i < 5; i++) {
    const [top, foot] = [300 + i * 330, 60 + i * 450];
    bars.fill('iron', [
      [top - 9, -80],
      [top + 9, -80],
      [foot + 20, 1160],
      [foot - 20, 1160],
    ]);
    bars.fill('ironLit', [
      [top - 9, -80],
      [top - 4, -80],
      [foot - 8, 1160],
      [foot - 20, 1160],
    ]);
  }
  bars.box('iron', -80, 268, 2000, 290).box('ironLit', -80, 268, 2000, 273);
  bars.box('iron', -80, 690, 2000, 720).box('ironLit', -80, 690, 2000, 697);
  return { sky: sky.marks, bars: bars.marks };
}

/** A bench with a stand for a flask. */
export function flaskBench(swatch: (key: string) => Id, newId: NewId): Mark[] {
  const picture = new Backdrop(swatch, newId).box('wall', -80, -80, 2000, 1160);
  picture.disc('glow1', 960, 560, 780, 0.8).disc('glow2', 960, 560, 540, 0.8);
  for (let i = 0; i < 6; i++) {
    const x = 140 + i * 330;
    picture.box('shelf', x, 150, x + 250, 162);
    for (let k = 0; k < 3; k++) {
      const left = x + 20 + k * 76;
      const tall = 70 + ((i * 5 + k * 3) % 4) * 14;
      picture.fill('glass', [
        [left, 150],
        [left, 150 - tall * 0.6],
        [left + 16, 150 - tall * 0.75],
        [left + 16, 150 - tall],
        [left + 30, 150 - tall],
        [left + 30, 150 - tall * 0.75],
        [left + 46, 150 - tall * 0.6],
        [left + 46, 150],
      ]);
    }
  }
  picture.box('bench', -80, 860, 2000, 1160).box('benchLit', -80, 860, 2000, 876);
  picture.fill('stand', [
    [820, 860],
    [850, 838],
    [1070, 838],
    [1100, 860],
  ]);
  return picture.marks;
}
