/** The saver against a server and a browser store that fail in every way they can. */
import { entitiesOf, find, newShotDocument, randomId, shotOf, type Id, type ShotDocument } from '@tallow/core/document';
import { addMark, addSwatch, setLayer, setShot } from '@tallow/core/edit';
import { cycleOf, fixture } from '../../core/fixture.ts';
import { asides } from '../shot/aside.ts';
import { edit, undo, useDocument } from '../shot/document.ts';
import { browserStore, rangeOf } from './browser-store.ts';
import { FakeServer } from './testing/fake-server.ts';
import { makePage, until } from './testing/page.ts';

makePage();
const { openSaver, openShot } = await import('./open-shot.ts');

const { stroke } = fixture(3);
let server: FakeServer;
let shotId: Id;
let blank: ShotDocument;
let close: (() => void) | null = null;

const doc = (): ShotDocument => useDocument.getState().doc!;
const layer = () => entitiesOf(doc(), 'layer')[0]!;
const says = () => useDocument.getState().saving;
const saved = () => until(() => says().state === 'saved', 'the header to say Saved');
/** How many records this browser keeps of the shot. */
const kept = (): Promise<number> =>
  browserStore.run(async (database) => {
    const all = await database.getAllKeys('pending');
    return all.filter(([shot]) => shot === shotId).length;
  });
const draw = (): void => {
  edit('stroke', (now) => addMark(now, layer().id, 0, { ...stroke(1, 2, 3, 4), id: randomId() }, randomId));
};
const marksOnServer = (): number =>
  [...server.rows.values()].reduce(
    (sum, { kind, body }) => sum + (kind === 'drawing' && body ? (body['order'] as Id[]).length : 0),
    0,
  );

async function open(): Promise<void> {
  close = await openShot(shotId, () => false);
}

beforeEach(async () => {
  shotId = randomId();
  const format = { name: 'Test', width: 640, height: 360, rate: 24, length: 24, background: null };
  blank = newShotDocument(shotId, format, randomId);
  server = new FakeServer(shotId, blank);
  await open();
});
afterEach(async () => {
  server.up = true;
  close?.();
  // The next opening waits for it.
  await openShot(shotId, () => true);
});

test('what is edited is on the server, and then this browser keeps it no more', async () => {
  draw();
  expect(says().state).toBe('saving');
  await saved();
  expect(marksOnServer()).toBe(1);
  await until(async () => (await kept()) === 0, 'the outbox to be empty');
});

test('while the server is out of reach this browser keeps the work and the header says so; saving goes on by itself', async () => {
  server.up = false;
  draw();
  await until(() => says().state === 'unsaved', 'the header to say it is not saved');
  expect(says()).toMatchObject({ server: 'The server cannot be reached', browser: null });
  await until(async () => (await kept()) > 0, 'this browser to keep it');
  expect(openSaver()!.onlyInMemory).toBe(false);
  server.up = true;
  await saved();
  expect(marksOnServer()).toBe(1);
});

test('a stroke on a drawing that has not come yet is only in this page, says the header, until the drawing is there', async () => {
  draw();
  await saved();
  close?.();
  server.holds = true;
  await open();
  const [drawing] = useDocument.getState().missing;
  const landed = openSaver()!.land(drawing!, draw);
  expect(says()).toMatchObject({ state: 'memory', landing: 1 });
  expect(openSaver()!.onlyInMemory).toBe(true);
  server.up = false;
  server.letGo();
  await until(() => server.missed > 1, 'the drawing to be asked for again');
  expect(says().state).toBe('memory');
  server.up = true;
  await landed;
  expect(says().landing).toBe(0);
  await saved();
  expect(marksOnServer()).toBe(2);
});

test('an answer that was lost: the save is repeated under its own id, and nothing is doubled', async () => {
  server.losesAnswers = 1;
  draw();
  await until(() => server.asked.length > 1, 'the save to be repeated');
  await saved();
  expect(new Set(server.asked.map(({ saveId }) => saveId)).size).toBe(1);
  expect([marksOnServer(), server.revision]).toEqual([1, 2]);
});

test('what others changed elsewhere comes in; what is edited here stays', async () => {
  const swatch = find(doc(), 'swatch', shotOf(doc()).swatches[0])!;
  server.put(swatch.id, { ...swatch, colour: '#123456' });
  draw();
  await saved();
  await until(() => find(doc(), 'swatch', swatch.id)?.colour === '#123456', 'their colour');
  expect(marksOnServer()).toBe(1);
});

test('two fields of one thing, one changed here and one elsewhere: both', async () => {
  const own = layer();
  server.put(own.id, { ...own, locked: true });
  edit('name', (now) => setLayer(now, own.id, { name: 'Mine' }));
  await saved();
  await until(() => server.bodyOf(own.id)?.['name'] === 'Mine', 'it to be saved');
  expect(server.bodyOf(own.id)).toMatchObject({ name: 'Mine', locked: true });
  expect(layer()).toMatchObject({ name: 'Mine', locked: true });
});

test('undone while its save was on the way, it is undone on the server too', async () => {
  draw();
  undo();
  await saved();
  expect(marksOnServer()).toBe(0);
});

test('closed while the server was out of reach: opened again, the work is there and is saved', async () => {
  server.up = false;
  draw();
  await until(async () => (await kept()) > 0, 'this browser to keep it');
  close?.();
  server.up = true;
  await open();
  await until(() => marksOnServer() === 1, 'what was left to be saved');
  await saved();
  await until(async () => (await kept()) === 0, 'its records to be gone');
  expect(entitiesOf(doc(), 'drawing').flatMap(({ order }) => order)).toHaveLength(1);
});

test('what the server refuses is named, and holds up nothing else', async () => {
  let bad: Id = '';
  server.refuses = (id) => (id === bad ? 'must be otherwise' : null);
  edit('swatch', (now) => {
    const added = addSwatch(now, { name: 'Bad', role: 'body', colour: '#111111' }, randomId);
    bad = added.swatchId;
    return added.doc;
  });
  draw();
  await until(() => marksOnServer() === 1, 'the stroke to be saved');
  await until(() => says().refused.length > 0, 'it to be told');
  expect(says().refused[0]).toMatch(/^“Bad”: .*must be otherwise/);
});

test('the database was put back from a copy: what it has is shown, and what was not saved is put in again', async () => {
  server.up = false;
  draw();
  await until(() => says().state === 'unsaved', 'the header to say it is not saved');
  const shot = shotOf(doc());
  server.epoch = 'second';
  server.put(shot.id, { ...shot, name: 'From the copy' });
  server.up = true;
  await until(() => shotOf(doc()).name === 'From the copy', 'what the copy has');
  await saved();
  expect(marksOnServer()).toBe(1);
});

test('put back from a copy: what is drawn while it is loaded anew is put in too, and a server that goes away meanwhile loses nothing', async () => {
  draw();
  await saved();
  server.up = false;
  draw();
  await until(() => says().state === 'unsaved', 'the header to say it is not saved');
  server.epoch = 'second';
  server.holds = true;
  server.up = true;
  await until(() => server.holding > 0, 'the drawing to be asked for');
  draw();
  server.up = false;
  server.letGo();
  await until(() => server.missed > 1, 'the server to be missed');
  await until(async () => (await kept()) > 0, 'this browser to keep it');
  server.up = true;
  await until(() => marksOnServer() === 3, 'all three strokes to be on the server');
  await saved();
});

describe('a browser store that is lost', () => {
  const openStore = indexedDB.open.bind(indexedDB);
  afterEach(async () => {
    indexedDB.open = openStore;
    await until(() => browserStore.isOpen, 'the store to be opened again');
  });
  /** The browser closes it, and it cannot be opened. */
  const lose = async (): Promise<void> => {
    await browserStore.run((database) => {
      database.close();
      return Promise.resolve();
    });
    indexedDB.open = () => {
      throw new Error('there is no room');
    };
    await browserStore.run((database) => database.getAllKeys('pending')).catch(() => undefined);
    await until(() => !browserStore.isOpen, 'the store to be lost');
  };

  test('the server alone keeps the work', async () => {
    await lose();
    draw();
    await saved();
    expect(marksOnServer()).toBe(1);
    expect(says().browser).not.toBeNull();
  });

  test('with the server gone too, the header says that only this page has it; the store alone comes back and keeps it', async () => {
    await lose();
    server.up = false;
    draw();
    await until(() => says().state === 'memory', 'the header to say that only the page has it');
    expect(openSaver()!.onlyInMemory).toBe(true);
    indexedDB.open = openStore;
    await until(() => browserStore.isOpen, 'the store to be opened again');
    await until(async () => (await kept()) > 0, 'it to be kept again');
    await until(() => !openSaver()!.onlyInMemory, 'the page to know');
    await until(() => says().state === 'unsaved', 'the header to say so');
  });
});

describe('opening shots', () => {
  test('what shows comes first, then what lies around the playhead, in the end all of it', async () => {
    close?.();
    const drawn = cycleOf(
      {
        ...fixture(5),
        base: blank,
        elementId: entitiesOf(blank, 'element')[0]!.id,
        layerId: entitiesOf(blank, 'layer')[0]!.id,
        newId: randomId,
      },
      40,
      () => ({ ...stroke(1, 2, 3, 4), id: randomId() }),
    );
    server = new FakeServer(shotId, drawn);
    await open();
    await until(() => useDocument.getState().missing.size === 0, 'all drawings');
    const drawnOn = entitiesOf(drawn, 'layer').find(({ slots }) => Object.keys(slots).length > 1)!;
    const runs = find(drawn, 'runlist', drawnOn.runListId)!.runs;
    const order = runs.map(({ slot }) => drawnOn.slots[slot!]!);
    expect(server.fetched[0]).toBe(order[0]);
    expect(new Set(server.fetched.slice(1, 5))).toEqual(new Set([order[1], order[39], order[2], order[38]]));
    expect([...server.fetched].sort()).toEqual([...order].sort());
  });

  test('a page that is gone by then opens nothing', async () => {
    expect(await openShot(shotId, () => true)).toBeNull();
  });

  test('the next one waits until the one before has kept its work', async () => {
    server.up = false;
    draw();
    close?.();
    server.up = true;
    await open();
    await until(() => marksOnServer() === 1, 'the work of the first');
  });

  test('however slow the browser store is, the next one does not open before it', async () => {
    const run = browserStore.run;
    let release = (): void => undefined;
    const slow = new Promise<void>((done) => {
      release = done;
    });
    browserStore.run = async (work) => {
      await slow;
      return run.call(browserStore, work) as ReturnType<typeof work>;
    };
    try {
      draw();
      close?.();
      const opening = open();
      // More turns of the page than opening takes.
      for (let i = 0; i < 50; i++) await new Promise((next) => setImmediate(next));
      expect(useDocument.getState().doc).toBeNull();
      release();
      await opening;
      await until(() => marksOnServer() === 1, 'the work of the first');
    } finally {
      browserStore.run = run;
      release();
    }
  });

  test('one that is closed has no document, and what is done then is not saved', async () => {
    await saved();
    close?.();
    expect([useDocument.getState().doc, openSaver()]).toEqual([null, null]);
    edit('name', (now) => setShot(now, { name: 'Too late' }));
    expect(server.asked).toEqual([]);
  });

  test('a shot that cannot be read is refused, and the next opens all the same', async () => {
    const own = layer();
    const row = server.rows.get(own.id)!;
    server.rows.set(own.id, { ...row, body: { ...row.body, name: 5 } });
    close?.();
    await expect(openShot(shotId, () => false)).rejects.toThrow(/cannot be read/);
    server.rows.set(own.id, row);
    await open();
    expect(layer().name).toBe(own.name);
  });
});

test('records are kept under the shot and the tab', () => {
  expect(rangeOf('shot', 'tab').includes(['shot', 'tab', 'any'])).toBe(true);
  expect(rangeOf('shot', 'tab').includes(['shot', 'other', 'any'])).toBe(false);
});

test('marks that this browser has lost come from the server, as soon as that can be reached', async () => {
  draw();
  await saved();
  const drawing = entitiesOf(doc(), 'drawing')[0]!;
  server.up = false;
  const again = asides.whenLost!(drawing);
  await until(() => server.missed > 0, 'the server to be asked while it is out of reach');
  server.up = true;
  expect(await again).toEqual(drawing.marks);
});
