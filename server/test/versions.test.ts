/** Versions on a real server: named, gone back to and forth without losing anything, gone on from in a new shot. */
import {
  encodeEntity,
  entitiesOf,
  putEntities,
  randomId,
  shotOf,
  type Id,
  type ShotDocument,
} from '@tallow/core/document';
import { addLayer, addMark, newDrawing, setShot } from '@tallow/core/edit';
import { discRing } from '@tallow/core/geometry';
import { loadImage } from '@napi-rs/canvas';
import { shotServices } from '../shots/services.ts';
import { runVersionLoop } from '../cards/loop-job.ts';
import { thinShot } from '../versions/thinning.ts';
import { VersionsService } from '../versions/versions.service.ts';
import { changingShot, documentOn } from './changing.ts';
import { startServer, type Harness } from './harness.ts';

let server: Harness;
const production = randomId();
beforeAll(async () => {
  server = await startServer();
  await server.send('POST', '/productions', { id: production, name: 'Versions' });
}, 60_000);
afterAll(() => server.stop());

const documentOf = (id: Id): Promise<ShotDocument> => documentOn(server, id);
/** The entities of a shot, as they are stored. */
const told = async (id: Id): Promise<Map<Id, string>> => {
  const doc = await documentOf(id);
  return new Map(Object.values(doc.entities).map((each) => [each.id, JSON.stringify(encodeEntity(each))]));
};

const shot = (name: string) => changingShot(server, production, name);
const disc = (doc: ShotDocument, x: number) =>
  ({
    kind: 'shape',
    id: randomId(),
    swatch: shotOf(doc).swatches[0]!,
    rings: [discRing(x, 0, 9)],
    rule: 'nonzero',
    opacity: 1,
  }) as const;
const lineOf = (doc: ShotDocument): Id => entitiesOf(doc, 'layer')[0]!.id;

interface Version {
  id: Id;
  name: string;
  made: string;
  changed: number;
  revision: number;
}
const list = async (id: Id): Promise<Version[]> =>
  (await server.send('GET', `/shots/${id}/versions`)).json as Version[];
const name = async (id: Id, called: string): Promise<Version> =>
  (await server.send('POST', `/shots/${id}/versions`, { id: randomId(), name: called })).json as Version;

test('a version is the shot as it was, to every entity; going back is a new revision, and going forth again too', async () => {
  const { id, change } = await shot('Stages');
  await change((doc) => addMark(doc, lineOf(doc), 0, disc(doc, 0), randomId));
  const plan = await name(id, 'plan');
  const atPlan = await told(id);
  // A drawing more, a layer more, one changed, one gone.
  await change((doc) => {
    const drawn = newDrawing(doc, lineOf(doc), 0, randomId).doc;
    return addLayer(
      addMark(drawn, lineOf(doc), 2, disc(doc, 5), randomId),
      entitiesOf(doc, 'element')[0]!.id,
      'Body',
      'body',
      null,
      randomId,
    ).doc;
  });
  await change((doc) => setShot(doc, { background: null }));
  await change((doc) => {
    const [drawing] = entitiesOf(doc, 'drawing').filter(({ order }) => order.length > 0);
    return putEntities(doc, { ...drawing!, marks: {}, order: [] });
  });
  const atEnd = await told(id);
  expect((await list(id))[0]).toMatchObject({ id: plan.id, name: 'plan', made: 'hand', changed: 2 });
  const back = await server.send('POST', `/versions/${plan.id}/restore`);
  expect(back.status).toBe(200);
  expect((back.json as { revision: number }).revision).toBeGreaterThan(plan.revision + 3);
  expect(await told(id)).toEqual(atPlan);
  // Where one was is named by itself.
  const [before] = await list(id);
  expect(before).toMatchObject({ name: 'Before going back to “plan”', made: 'restore' });
  await server.send('POST', `/versions/${before!.id}/restore`);
  expect(await told(id)).toEqual(atEnd);
  await server.send('POST', `/versions/${plan.id}/restore`);
  expect(await told(id)).toEqual(atPlan);
  expect((await list(id)).find((each) => each.id === plan.id)).toMatchObject({ changed: expect.any(Number) as number });
});

test('a new shot goes on from it, with ids of its own; its picture shows it', async () => {
  const { id, change } = await shot('Trunk');
  await change((doc) => addMark(doc, lineOf(doc), 0, disc(doc, 0), randomId));
  const version = await name(id, 'first');
  await change((doc) => setShot(doc, { background: '#ffffff' }));
  const branch = randomId();
  const made = await server.send('POST', `/versions/${version.id}/branch`, { id: branch });
  expect(made.json).toMatchObject({
    id: branch,
    productionId: production,
    name: 'Trunk, first',
    background: '#203040',
  });
  const [one, two] = [await told(id), await told(branch)];
  expect([...two.keys()].filter((each) => one.has(each))).toEqual([]);
  const picture = await fetch(`${server.address}/api/versions/${version.id}/picture.png`);
  const image = await loadImage(Buffer.from(await picture.arrayBuffer()));
  expect([image.width, image.height]).toEqual([480, 270]);
});

test('of an effect on the shelf, a new shot lies in a production, where it is seen', async () => {
  const { id } = await shot('Shelved');
  const element = entitiesOf(await documentOf(id), 'element')[0]!;
  const kept = randomId();
  await server.send('POST', '/shelf', { id: kept, shotId: id, elementId: element.id });
  const version = await name(kept, 'as kept');
  const branch = await server.send('POST', `/versions/${version.id}/branch`, { id: randomId() });
  expect(branch.json).toMatchObject({ productionId: production });
  const copy = await server.send('POST', `/shots/${kept}/duplicate`, { id: randomId() });
  expect(copy.json).toMatchObject({ productionId: production });
});

test('before it is taken away a shot is named by itself, once for a revision', async () => {
  const { id, change } = await shot('Away');
  await change((doc) => addMark(doc, lineOf(doc), 0, disc(doc, 0), randomId));
  for (const format of ['png', 'gif']) await server.send('POST', `/shots/${id}/exports`, { background: false, format });
  expect((await list(id)).map((each) => [each.name, each.made])).toEqual([['Taken away as away-alpha.zip', 'export']]);
});

test('renamed, let go, and refused in words where there is none', async () => {
  const { id } = await shot('Names');
  const version = await name(id, 'one');
  expect((await server.send('PATCH', `/versions/${version.id}`, { name: 'two' })).json).toMatchObject({ name: 'two' });
  expect((await server.send('DELETE', `/versions/${version.id}`)).status).toBe(204);
  expect(await list(id)).toEqual([]);
  for (const [method, path] of [
    ['POST', `/versions/${version.id}/restore`],
    ['DELETE', `/versions/${version.id}`],
    ['GET', `/versions/${version.id}/picture.png`],
    ['GET', `/shots/${randomId()}/versions`],
  ] as const)
    expect((await server.send(method, path)).status).toBe(404);
  const empty = await server.send('POST', `/shots/${id}/versions`, { id: randomId(), name: '' });
  expect(empty.status).toBe(422);
});

test('what is in a version is told, and one element or layer of it comes by itself', async () => {
  const { id, change } = await shot('Parts');
  await change((now) => addMark(now, lineOf(now), 0, disc(now, 5), randomId));
  await server.send('POST', `/shots/${id}/versions`, { id: randomId(), name: 'Then' });
  const doc = await documentOf(id);
  const [element] = entitiesOf(doc, 'element');
  await change((now) => setShot(now, { name: 'Later' }));
  const [version] = (await server.send('GET', `/shots/${id}/versions`)).json as Version[];
  const contents = (await server.send('GET', `/versions/${version!.id}/contents`)).json;
  expect(contents).toMatchObject([{ id: element!.id, layers: [{ id: lineOf(doc) }] }]);
  const parts = (await server.send('GET', `/versions/${version!.id}/parts?of=${element!.id}`)).json as {
    shotId: Id;
    roots: Id[];
    entities: { kind: string; id: Id }[];
  };
  expect(parts).toMatchObject({ shotId: id, roots: [element!.id] });
  expect(parts.entities.filter(({ kind }) => kind === 'drawing')).toHaveLength(1);
  const layer = (await server.send('GET', `/versions/${version!.id}/parts?of=${lineOf(doc)}`)).json as typeof parts;
  expect(layer.roots).toEqual([lineOf(doc)]);
  expect((await server.send('GET', `/versions/${version!.id}/parts?of=${randomId()}`)).status).toBe(422);
  expect((await server.send('GET', `/versions/${randomId()}/contents`)).status).toBe(404);
});

test('the loop of a version is made when it is asked for, once, and goes with its name', async () => {
  const { id, change } = await shot('Loop');
  await change((now) => addMark(now, lineOf(now), 0, disc(now, 5), randomId));
  const named = (await server.send('POST', `/shots/${id}/versions`, { id: randomId(), name: 'Then' })).json as Version;
  const ask = () => fetch(`${server.address}/api/versions/${named.id}/loop.webp`);
  expect((await ask()).status).toBe(404);
  const { shots, saves } = shotServices(server.database);
  const versions = new VersionsService(server.database, shots, saves);
  await runVersionLoop(server.database, (each) => versions.document(each), named.id);
  const made = await ask();
  expect(made.headers.get('content-type')).toBe('image/webp');
  expect((await loadImage(Buffer.from(await made.arrayBuffer()))).width).toBe(480);
  await server.send('DELETE', `/versions/${named.id}`);
  expect((await ask()).status).toBe(404);
});

test('before something comes in the shot is named by itself, but for a revision that has a name', async () => {
  const { id, change } = await shot('Before');
  const before = (name: string) => server.send('POST', `/shots/${id}/versions/before`, { name });
  expect((await before('Before a.svg came in')).status).toBe(204);
  await before('Before b.svg came in');
  await change((now) => setShot(now, { name: 'Later' }));
  await before('Before c.svg came in');
  const list = (await server.send('GET', `/shots/${id}/versions`)).json as Version[];
  expect(list.map(({ name }) => name)).toEqual(['Before c.svg came in', 'Before a.svg came in']);
  expect(list).toMatchObject([{ made: 'import' }, { made: 'import' }]);
});

test('what was replaced long ago and no named version shows goes; all else stays, and every version shows what it did', async () => {
  const { id, change } = await shot('Thinned');
  const named: { id: Id; entities: Map<Id, string> }[] = [];
  const versionsAt = async (): Promise<string> =>
    JSON.stringify(
      await Promise.all(
        named.map(async ({ id: each }) => {
          const { shots, saves } = shotServices(server.database);
          const { entities } = await new VersionsService(server.database, shots, saves).document(each);
          return Object.values(entities).map(encodeEntity);
        }),
      ),
    );
  for (let i = 0; i < 12; i++) {
    await change((now) => addMark(now, lineOf(now), 0, disc(now, i), randomId));
    if (i % 4 !== 1) continue;
    const version = randomId();
    await server.send('POST', `/shots/${id}/versions`, { id: version, name: `At ${i}` });
    named.push({ id: version, entities: await told(id) });
  }
  const older = () => server.database('older_bodies').where({ shot_id: id });
  const before = await versionsAt();
  // All of it is new: nothing goes.
  expect(await thinShot(server.database, id)).toBe(0);
  await server
    .database('saves')
    .where({ shot_id: id })
    .where('revision', '<', 10)
    .update({ created_at: server.database.raw(`now() - interval '91 days'`) });
  const count = (await older()).length;
  const gone = await thinShot(server.database, id);
  expect(gone).toBeGreaterThan(3);
  expect(await older()).toHaveLength(count - gone);
  expect(await versionsAt()).toBe(before);
  // What was replaced lately stays, named or not.
  const latest = await older().max<{ max: number }[]>('revision as max');
  expect(latest[0]!.max).toBeGreaterThan(10);
  expect(await thinShot(server.database, id)).toBe(0);
  const room = (await server.send('GET', `/shots/${id}/room`)).json as { now: number; before: number };
  expect(room.now).toBeGreaterThan(1000);
  expect(room.before).toBeGreaterThan(room.now / 4);
});
