import { strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { contentsName, type Archive } from '../core/formats/archive';
import { writeArchive } from '../core/formats/archive';
import { defaultHabits } from '../core/habits/habits';
import { demoJobs, demoParts } from '../core/job/demo';
import { builtInKit } from '../core/kit/builtInKit';
import { recordedFrame } from '../core/testing/recorded';
import { readZip, zipLimits, zipped } from './zip';

const [wedding, band] = demoJobs();
const none = { bodies: [], lenses: [], adapters: [] };
const picture = new Blob([new Uint8Array([0xff, 0xd8, 1, 2, 3, 0xff, 0xd9])], { type: 'image/jpeg' });
const archive: Archive<Blob> = {
  savedAt: '2026-11-26T10:00:00.000Z',
  settings: { unit: 'feet', theme: 'sun' },
  kit: none,
  bags: [],
  jobs: [
    { file: { job: { ...wedding.job, bagId: 'b1' }, kit: none, ...demoParts(wedding) }, position: 5 },
    { file: { job: { ...band.job, habits: defaultHabits }, kit: none, ...demoParts(band) }, position: 9 }
  ],
  pictures: [{ key: 'card-1', drawnFrom: '{}', picture }],
  record: [recordedFrame('measured')],
  frames: [],
  drills: [{ kind: 'ticks', id: 'diagonal', ticked: ['stand'] }],
  benchTests: [
    {
      kind: 'stops',
      id: 't1',
      madeAt: 5,
      simulated: false,
      bodyId: 'b',
      body: 'Body',
      lensId: 'l',
      lens: 'Lens',
      focalLengthMm: 50,
      pixelMm: 0.006,
      stops: [
        {
          fNumber: 2,
          frames: 1,
          centre: null,
          middle: null,
          corner: { lpPerMm: 30, standing: 31, lying: null, risePx: 1.5, edges: 4, sd: 1 },
          overshoot: 0
        }
      ]
    }
  ]
};
const files = () => writeArchive(archive, builtInKit, defaultHabits);
const packed = () => zipped(files());
const bytesOf = async (blob: Blob) => new Uint8Array(await blob.arrayBuffer());
const asBlob = (bytes: Uint8Array) => new Blob([bytes as Uint8Array<ArrayBuffer>]);
/** The files as another library packs them, some of them changed, added or left out. */
async function repacked(changes: Readonly<Record<string, Uint8Array | null>>): Promise<Blob> {
  const all = { ...unzipSync(await bytesOf(await packed())), ...changes };
  const kept = Object.entries(all).flatMap(([name, content]) => (content ? [[name, content] as const] : []));
  return asBlob(zipSync(Object.fromEntries(kept)));
}
const asJson = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
const reasonFor = async (blob: Blob, limits = zipLimits as Parameters<typeof readZip>[2]) => {
  const result = await readZip(blob, undefined, limits);
  return result.ok ? 'taken' : result.reason;
};

describe('everything as one zip', () => {
  it('comes back as it was: settings, jobs with their bag and figures, pictures', async () => {
    const result = await readZip(await packed());
    if (!result.ok) throw new Error(result.reason);
    const { archive: back } = result;
    expect(back.settings).toEqual(archive.settings);
    expect(back.savedAt).toBe(archive.savedAt);
    expect(back.jobs.map(({ position }) => position)).toEqual([5, 9]);
    back.jobs.forEach(({ file }, index) => {
      const was = archive.jobs[index]?.file;
      expect(file.job).toEqual(was?.job);
      // Written, minus nought is nought.
      expect(file.setups).toEqual(asJson(was?.setups));
      expect(file.people).toEqual(asJson(was?.people));
      expect(file.places).toEqual(was?.places);
      // What they hold comes along, even where it came with Focalis.
      expect(file.kit.bodies.length).toBeGreaterThan(0);
    });
    expect(back.record).toEqual(archive.record);
    const [shown] = back.pictures;
    expect(shown?.picture.type).toBe('image/jpeg');
    expect(await bytesOf(shown?.picture ?? new Blob())).toEqual(await bytesOf(picture));
  });

  it('is a zip to another library, each job the job file it is; and what that packs is read', async () => {
    const entries = unzipSync(await bytesOf(await packed()));
    expect(Object.keys(entries).sort()).toEqual([
      contentsName,
      'jobs/0001.json',
      'jobs/0002.json',
      'kit.json',
      'pictures/1.jpg',
      'record.json'
    ]);
    const job = JSON.parse(new TextDecoder().decode(entries['jobs/0001.json'])) as { format: string };
    expect(job.format).toBe('focalis-job');
    expect(await reasonFor(await repacked({}))).toBe('taken');
    // A folder’s own entries, and files of whoever packed it again, do not matter.
    expect(await reasonFor(await repacked({ 'jobs/': new Uint8Array(), '__MACOSX/x': strToU8('x') }))).toBe('taken');
  });

  it('is the same file for the same content', async () => {
    expect(await bytesOf(await packed())).toEqual(await bytesOf(await packed()));
  });
});

describe('a zip from elsewhere is refused in a sentence', () => {
  it('when it is none, or cut off', async () => {
    const whole = await bytesOf(await packed());
    for (const length of [0, 10, whole.length / 2, whole.length - 5])
      expect(await reasonFor(asBlob(whole.slice(0, Math.floor(length))))).toMatch(/^This zip is cut off or damaged/);
    expect(await reasonFor(new Blob(['Dear diary']))).toMatch(/^This zip is cut off or damaged/);
  });

  it('when a name leads out of it', async () => {
    for (const name of ['../evil.json', 'jobs/../../evil', '/etc/passwd', 'C:\\x', 'jobs\\..\\x'])
      expect(await reasonFor(await repacked({ [name]: strToU8('x') })), name).toMatch(/points outside it/);
  });

  it('when it would take too much room, said or not', async () => {
    const bomb = await repacked({ 'jobs/0001.json': new Uint8Array(3_000_000) });
    expect(bomb.size).toBeLessThan(600_000);
    expect(await reasonFor(bomb, { ...zipLimits, each: 1_000_000 })).toMatch(/takes more than/);
    expect(await reasonFor(bomb, { ...zipLimits, files: 3 })).toBe('It holds more than 3 files.');
    expect(await reasonFor(bomb, { ...zipLimits, bytes: 100 })).toMatch(/at most 0 MB are read/);
    // It says that it holds ten bytes, and unpacks to three million.
    const lying = await bytesOf(bomb);
    const view = new DataView(lying.buffer);
    for (let at = 0; at < lying.length - 46; at++) {
      const central = view.getUint32(at, true) === 0x02014b50;
      const local = view.getUint32(at, true) === 0x04034b50;
      if (central && view.getUint32(at + 24, true) === 3_000_000) view.setUint32(at + 24, 10, true);
      if (local && view.getUint32(at + 22, true) === 3_000_000) view.setUint32(at + 22, 10, true);
    }
    expect(await reasonFor(asBlob(lying))).toMatch(/longer than it claims/);
  });

  it('when a byte of it has changed', async () => {
    const whole = await bytesOf(asBlob(zipSync(unzipSync(await bytesOf(await packed())), { level: 0 })));
    const name = new TextEncoder().encode(wedding.job.name);
    const at = whole.findIndex((_, index) => name.every((byte, i) => whole[index + i] === byte));
    expect(at).toBeGreaterThan(0);
    whole[at] = (whole[at] ?? 0) ^ 1;
    expect(await reasonFor(asBlob(whole))).toMatch(/checksum/);
  });

  it('when something in it is missing, newer or not what it says', async () => {
    expect(await reasonFor(await repacked({ [contentsName]: null }))).toMatch(/no archive of Focalis/);
    expect(await reasonFor(await repacked({ 'kit.json': null }))).toBe('kit.json: It is missing.');
    expect(await reasonFor(await repacked({ 'jobs/0002.json': null }))).toBe('jobs/0002.json: It is missing.');
    expect(await reasonFor(await repacked({ 'jobs/0002.json': strToU8('{}') }))).toMatch(/^jobs\/0002\.json: format/);
    expect(await reasonFor(await repacked({ [contentsName]: strToU8('{"format":"x"}') }))).toBe(
      'This isn’t a Focalis backup.'
    );
    const double = files().find(([name]) => name === 'jobs/0001.json')?.[1];
    const another = String(double).replace('"id":"demo-fernhall"', '"id":"another"');
    expect(await reasonFor(await repacked({ 'jobs/0002.json': strToU8(another) }))).toMatch(
      /^jobs\/0002\.json: people: ".+" is in another job of the archive, too\.$/
    );
    const newer = strToU8('{"format":"focalis-archive","version":3}');
    expect(await reasonFor(await repacked({ [contentsName]: newer }))).toMatch(/newer than this Focalis reads/);
    expect(await reasonFor(await repacked({ 'record.json': null }))).toBe('record.json: It is missing.');
    expect(await reasonFor(await repacked({ 'record.json': strToU8('{}') }))).toMatch(/^record\.json: format/);
    // A picture can be drawn again.
    expect(await reasonFor(await repacked({ 'pictures/1.jpg': null }))).toBe('taken');
  });
});
