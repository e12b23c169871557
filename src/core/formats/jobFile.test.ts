import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { defaultHabits } from '../habits/habits';
import { demoJobs, demoParts } from '../job/demo';
import { resolveSetup } from '../job/resolve';
import { castOf } from '../testing/cast';
import { jobPersonSchema, jobPlaceSchema, jobSchema, jobSetupSchema } from '../job/schema';
import { builtInKit, mergedKit } from '../kit/builtInKit';
import { adapterSchema, bodySchema, lensSchema } from '../kit/schema';
import { limits } from '../schema/values';
import { newPerson, newSetup } from '../setup/defaults';
import { asPartOfJob } from '../job/normalise';
import { arbitraryOf } from '../testing/arbitrary';
import { jobFileVersion, maxJobFileBytes, readJobFile, writeJobFile, type JobFile } from './jobFile';

const [wedding] = demoJobs();
const demo: JobFile = { job: wedding.job, kit: builtInKit, ...demoParts(wedding) };
const text = writeJobFile(demo);

function accepted(content: string): JobFile {
  const result = readJobFile(content);
  if (!result.ok) throw new Error(`${result.field}: ${result.reason}`);
  return result.file;
}
const resolved = ({ people, places, setups }: JobFile) =>
  setups.map((setup) => resolveSetup(setup, castOf(people, places)));

/** The demo file with one value replaced, by its path. */
function altered(path: string, value: unknown): string {
  const data = JSON.parse(text) as Record<string, unknown>;
  const keys = path.split('.');
  const last = keys.pop() ?? '';
  const holder = keys.reduce<Record<string, unknown>>((at, key) => at[key] as Record<string, unknown>, data);
  holder[last] = value;
  return JSON.stringify(data);
}

function refusal(content: string) {
  const result = readJobFile(content);
  if (result.ok) throw new Error('was accepted');
  return result;
}

describe('job file', () => {
  it('comes back as it went, with the same calls', () => {
    const file = accepted(text);
    expect(file).toMatchObject({ ...demo, kit: {} });
    const plans = (kit: typeof builtInKit) =>
      resolved(file).map((setup) => planSetup({ setup, kit, stopStep: 'half', habits: defaultHabits }));
    expect(plans(mergedKit(file.kit))).toEqual(plans(builtInKit));
  });

  it('brings back whatever may be stored', () => {
    const parts = fc.record({
      job: arbitraryOf(jobSchema),
      bodies: fc.uniqueArray(arbitraryOf(bodySchema), { selector: (item) => item.id, maxLength: 3 }),
      lenses: fc.uniqueArray(arbitraryOf(lensSchema), { selector: (item) => item.id, maxLength: 3 }),
      adapters: fc.uniqueArray(arbitraryOf(adapterSchema), { selector: (item) => item.id, maxLength: 3 }),
      people: fc.uniqueArray(arbitraryOf(jobPersonSchema), { selector: (item) => item.id, minLength: 4, maxLength: 9 }),
      places: fc.uniqueArray(arbitraryOf(jobPlaceSchema), { selector: (item) => item.id, minLength: 1, maxLength: 3 }),
      setups: fc.uniqueArray(arbitraryOf(jobSetupSchema), { selector: (item) => item.id, maxLength: 5 })
    });
    fc.assert(
      fc.property(parts, ({ job, bodies, lenses, adapters, people, places, setups }) => {
        const held: JobFile = {
          job,
          kit: { bodies, lenses, adapters },
          people,
          places,
          // Each stands in for a stored one: its place and its people are the job's.
          setups: setups.map((setup, index) => ({
            ...setup,
            placeId: places[index % places.length]?.id ?? '',
            people: setup.people.map((standing, at) => ({ ...standing, id: people[at]?.id ?? '' })),
            things: setup.things.map((thing, at) => ({ ...thing, id: `thing-${at}-of-it` })),
            camera: {
              ...setup.camera,
              bodyId: bodies[0]?.id ?? setup.camera.bodyId,
              lensId: lenses[0]?.id ?? setup.camera.lensId,
              adapterIds: adapters.slice(0, 1).map((item) => item.id)
            }
          }))
        };
        const back = accepted(writeJobFile(held));
        expect(back).toEqual({
          ...held,
          // A bag is the photographer's, and stays.
          job: { ...job, bagId: null },
          kit: {
            bodies: setups.length > 0 ? bodies.slice(0, 1) : [],
            lenses: setups.length > 0 ? lenses.slice(0, 1) : [],
            adapters: setups.length > 0 ? adapters.slice(0, 1) : []
          }
        });
      }),
      { numRuns: 60 }
    );
  });

  it('brings back the largest job there may be: 300 setups of 200 people, all different, with long names', () => {
    const name = (index: number) => `${index} ${'ö'.repeat(74)}`;
    const base = newSetup('base', 'Base');
    const setups = Array.from({ length: limits.maxSetups }, (_, at) =>
      asPartOfJob(
        {
          ...base,
          id: `setup-${at}`,
          notes: 'n'.repeat(limits.maxNotesLength),
          people: Array.from({ length: limits.maxPeople }, (_, n) =>
            newPerson(`person-${at}-${n}`, name(n), { depthMm: 1234.56789 * n, role: name(n) })
          )
        },
        { id: `place-${at}`, name: name(at) }
      )
    );
    const held: JobFile = {
      job: wedding.job,
      kit: builtInKit,
      people: setups.flatMap((part) => part.people),
      places: setups.flatMap((part) => part.places),
      setups: setups.flatMap((part) => part.setups)
    };
    const written = writeJobFile(held);
    expect(new TextEncoder().encode(written).length).toBeLessThan(maxJobFileBytes);
    const back = accepted(written);
    expect(back.people).toHaveLength(60_000);
    expect(back.setups).toEqual(held.setups);
  });

  it('leaves out of the picture whoever the job no longer knows', () => {
    const [gone, ...people] = demo.people;
    const file = accepted(writeJobFile({ ...demo, people }));
    expect(file.setups.some((setup) => setup.people.some((standing) => standing.id === gone?.id))).toBe(false);
    expect(file.people).toEqual(people);
  });

  it('takes setups whose camera or lens is missing, and one set where the lens does not reach', () => {
    expect(accepted(altered('setups.0.camera.lensId', 'lens-999')).setups[0]?.camera.lensId).toBe('lens-999');
    expect(accepted(altered('setups.0.camera.focalLengthMm', 300)).setups[0]?.camera.focalLengthMm).toBe(300);
  });

  it('carries only the kit it uses', () => {
    const { kit } = JSON.parse(text) as { kit: typeof builtInKit };
    expect(kit.lenses.map((lens) => lens.id)).not.toContain('lens-135');
    expect(kit.lenses.map((lens) => lens.id)).toContain('lens-85');
  });

  it.each([
    ['negative distance', 'setups.1.camera.placement.distanceMm', -3, 'setups[1].camera.placement.distanceMm'],
    ['zero detail', 'places.0.backgrounds.0.detailMm', 0, 'places[0].backgrounds[0].detailMm'],
    ['text for a number', 'setups.0.people.0.depthMm', '3', 'setups[0].people[0].depthMm'],
    ['null for a number', 'setups.0.camera.heightMm', null, 'setups[0].camera.heightMm'],
    ['markup in a name', 'people.0.name', '<img src=x onerror=alert(1)>', 'people[0].name'],
    ['markup in the job', 'job.name', 'A <b>job</b>', 'job.name'],
    ['empty name', 'setups.0.name', '  ', 'setups[0].name'],
    ['control characters', 'setups.0.name', 'a\u0000b', 'setups[0].name'],
    ['unknown wish', 'places.0.backgrounds.0.wish', 'explode', 'places[0].backgrounds[0].wish'],
    ['unknown field', 'setups.0.camera.colour', 'red', 'setups[0].camera.colour'],
    ['a place that is missing', 'setups.0.placeId', 'nowhere', 'setups[0].placeId'],
    ['a person who is missing', 'setups.0.people.0.id', 'nobody', 'setups[0].people[0].id'],
    ['a lens turned round', 'kit.lenses.0.smallestFNumber', 1, 'kit.lenses[0].smallestFNumber'],
    ['a zoom turned round', 'kit.lenses.0.longestMm', 10, 'kit.lenses[0].longestMm'],
    [
      'a measured table out of order',
      'kit.lenses.0.measured',
      [4, 2.8].map((fNumber) => ({ fNumber, lpPerMm: 50 })),
      'kit.lenses[0].measured'
    ],
    ['a sensor on its side', 'kit.bodies.0.sensor.heightMm', 100, 'kit.bodies[0].sensor.heightMm'],
    ['an ISO limit under the base', 'kit.bodies.0.isoLimit', 50, 'kit.bodies[0].isoLimit'],
    ['a sync time no shutter has', 'kit.bodies.0.syncS', 0.0001, 'kit.bodies[0].syncS'],
    ['habits out of range', 'job.habits', { ...defaultHabits, lowLightFactor: 0 }, 'job.habits.lowLightFactor'],
    ['bad date', 'job.date', '2027-02-31', 'job.date'],
    ['hostile id', 'setups.0.people.0.id', '../../etc', 'setups[0].people[0].id'],
    ['people not a list', 'setups.0.people', {}, 'setups[0].people']
  ])('refuses %s with the field and the reason', (_, path, value, field) => {
    const result = refusal(altered(path, value));
    expect(result.field).toBe(field);
    expect(result.reason).toMatch(/^[A-Z“"].*\.$/);
  });

  it('refuses NaN and other things that are not JSON', () => {
    expect(refusal(text.replace('"pitchDeg":-3', '"pitchDeg":NaN')).reason).toMatch(/isn’t a complete/);
    expect(refusal('').reason).toMatch(/isn’t a complete/);
    expect(refusal('{}').field).toBe('format');
    expect(refusal('[]').reason).toMatch(/There is no job in the file/);
    expect(refusal('null').reason).toMatch(/There is no job in the file/);
    expect(refusal(text.replace('"pitchDeg":-3', '"pitchDeg":1e999')).field).toBe('setups[0].camera.pitchDeg');
  });

  it('refuses a truncated file wherever it is cut', () => {
    for (let cut = 1; cut < text.trimEnd().length; cut += 397)
      expect(refusal(text.slice(0, cut)).reason).toMatch(/cut off|JSON/);
  });

  it('refuses foreign and future files and says so', () => {
    expect(refusal(JSON.stringify({ format: 'something-else', version: 1 })).field).toBe('format');
    const future = refusal(altered('version', jobFileVersion + 1));
    expect(future).toMatchObject({ field: 'version' });
    expect(future.reason).toMatch(/newer than this Focalis/);
    expect(refusal(altered('version', 0)).field).toBe('version');
  });

  it('refuses what is too large, too deep or too much before parsing it', () => {
    expect(refusal(`"${'a'.repeat(maxJobFileBytes)}"`).reason).toMatch(/160 MB; a job file has at most 160 MB/);
    expect(refusal('['.repeat(1_000_000)).reason).toMatch(/nested/);
    expect(refusal(`[${'0,'.repeat(7_000_000)}0]`).reason).toMatch(/more than 6000000 values/);
  });

  it('refuses prototype keys and leaves every prototype alone', () => {
    const hostile = text.replace('"notes":', '"__proto__": {"polluted": true}, "notes":');
    expect(refusal(hostile).field).toMatch(/__proto__$/);
    expect(refusal(text.replace('"notes":', '"constructor": {}, "notes":')).field).toMatch(/constructor$/);
    expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
  });

  it('refuses two setups, people or lenses with one id, and a person and a thing', () => {
    const [first] = demo.setups;
    expect(refusal(altered('setups', [first, first])).reason).toMatch(/share an id/);
    expect(refusal(altered('people', [demo.people[0], demo.people[0]])).field).toBe('people');
    expect(refusal(altered('setups.0.people', [...(first?.people ?? []), ...(first?.people ?? [])])).field).toBe(
      'setups[0].people'
    );
    const rings = demo.setups.findIndex((setup) => setup.things.length > 0);
    const thing = { ...demo.setups[rings]?.things[0], id: demo.setups[rings]?.people[0]?.id };
    expect(refusal(altered(`setups.${rings}.things`, [thing])).field).toBe(`setups[${rings}].things`);
  });

  it('tells how far it has come', () => {
    const shares: number[] = [];
    readJobFile(text, (share) => shares.push(share));
    expect(shares).toEqual([...shares].sort((a, b) => a - b));
    expect(shares.length).toBeGreaterThan(2);
  });

  it('reads a file with a byte-order mark', () => {
    expect(readJobFile(`\uFEFF${text}`).ok).toBe(true);
  });
});
