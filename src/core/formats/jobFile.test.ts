import { describe, expect, it } from 'vitest';
import { planSetup } from '../call/planSetup';
import { builtInKit, mergedKit } from '../setup/builtInKit';
import { demoJobs } from '../setup/demo';
import version1 from './job-v1.focalis.json';
import { maxJobFileBytes, readJobFile, writeJobFile } from './jobFile';

const demo = demoJobs()[0];
const text = writeJobFile({ ...demo, kit: builtInKit });

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
    const result = readJobFile(text);
    if (!result.ok) throw new Error(`${result.field}: ${result.reason}`);
    expect(result.file.job).toEqual(demo.job);
    expect(result.file.setups).toEqual(demo.setups);
    const plans = (kit: typeof builtInKit) => demo.setups.map((setup) => planSetup({ setup, kit, stopStep: 'half' }));
    expect(plans(mergedKit(result.file.kit))).toEqual(plans(builtInKit));
  });

  it('reads what version 1 wrote: the same pictures, with shoulders turned half as far as the head', () => {
    const result = readJobFile(JSON.stringify(version1));
    if (!result.ok) throw new Error(`${result.field}: ${result.reason}`);
    expect(result.file.setups).toMatchObject(version1.setups);
    const [door, palms] = result.file.setups;
    expect(door?.people[0]).toMatchObject({ headYawDeg: 40, bodyYawDeg: 20 });
    expect(door?.intent.picture).toBe('onePerson');
    expect(palms?.intent.picture).toBe('couple');
  });

  it('carries only the kit it uses', () => {
    const { kit } = JSON.parse(text) as { kit: typeof builtInKit };
    expect(kit.lenses.map((lens) => lens.id)).not.toContain('lens-135');
    expect(kit.lenses.map((lens) => lens.id)).toContain('lens-85');
  });

  it.each([
    ['negative distance', 'setups.1.camera.placement.distanceMm', -3, 'setups[1].camera.placement.distanceMm'],
    ['zero detail', 'setups.0.backgrounds.0.detailMm', 0, 'setups[0].backgrounds[0].detailMm'],
    ['text for a number', 'setups.0.people.0.depthMm', '3', 'setups[0].people[0].depthMm'],
    ['null for a number', 'setups.0.camera.heightMm', null, 'setups[0].camera.heightMm'],
    ['markup in a name', 'setups.0.people.0.name', '<img src=x onerror=alert(1)>', 'setups[0].people[0].name'],
    ['markup in the job', 'job.name', 'A <b>job</b>', 'job.name'],
    ['empty name', 'setups.0.name', '  ', 'setups[0].name'],
    ['control characters', 'setups.0.name', 'a\u0000b', 'setups[0].name'],
    ['unknown wish', 'setups.0.backgrounds.0.wish', 'explode', 'setups[0].backgrounds[0].wish'],
    ['unknown field', 'setups.0.camera.colour', 'red', 'setups[0].camera.colour'],
    ['missing lens', 'setups.0.camera.lensId', 'lens-999', 'setups[0].camera.lensId'],
    ['missing body', 'setups.0.camera.bodyId', 'body-999', 'setups[0].camera.bodyId'],
    ['focal length off the lens', 'setups.0.camera.focalLengthMm', 300, 'setups[0].camera.focalLengthMm'],
    ['bad date', 'job.date', '2027-02-31', 'job.date'],
    ['hostile id', 'setups.0.people.0.id', '../../etc', 'setups[0].people[0].id'],
    ['people not a list', 'setups.0.people', {}, 'setups[0].people']
  ])('refuses %s with the field and the reason', (_, path, value, field) => {
    const result = refusal(altered(path, value));
    expect(result.field).toBe(field);
    expect(result.reason).toMatch(/^[A-Z“"].*\.$/);
  });

  it('refuses NaN and other things that are not JSON', () => {
    expect(refusal(text.replace('"pitchDeg": -3', '"pitchDeg": NaN')).reason).toMatch(/not complete JSON/);
    expect(refusal('').reason).toMatch(/not complete JSON/);
    expect(refusal('{}').field).toBe('format');
    expect(refusal('[]').reason).toMatch(/does not hold a job/);
    expect(refusal('null').reason).toMatch(/does not hold a job/);
    expect(refusal(text.replace('"pitchDeg": -3', '"pitchDeg": 1e999')).field).toBe('setups[0].camera.pitchDeg');
  });

  it('refuses a truncated file wherever it is cut', () => {
    for (let cut = 1; cut < text.trimEnd().length; cut += 397)
      expect(refusal(text.slice(0, cut)).reason).toMatch(/cut off|JSON/);
  });

  it('refuses foreign and future files and says so', () => {
    expect(refusal(JSON.stringify({ format: 'something-else', version: 1 })).field).toBe('format');
    const future = refusal(altered('version', 3));
    expect(future).toMatchObject({ field: 'version' });
    expect(future.reason).toMatch(/newer than this Focalis/);
    expect(refusal(altered('version', 0)).field).toBe('version');
  });

  it('refuses 50 MB and a million brackets before parsing them', () => {
    expect(refusal(`"${'a'.repeat(50_000_000)}"`).reason).toMatch(/50 MB; a job file has at most 8 MB/);
    expect(refusal('['.repeat(1_000_000)).reason).toMatch(/nested/);
    expect(maxJobFileBytes).toBeGreaterThan(text.length * 100);
  });

  it('refuses prototype keys and leaves every prototype alone', () => {
    const hostile = text.replace('"notes":', '"__proto__": {"polluted": true}, "notes":');
    expect(refusal(hostile).field).toMatch(/__proto__$/);
    expect(refusal(text.replace('"notes":', '"constructor": {}, "notes":')).field).toMatch(/constructor$/);
    expect(({} as Record<string, unknown>)['polluted']).toBeUndefined();
  });

  it('refuses two setups, people or lenses with one id', () => {
    const [first] = demo.setups;
    expect(refusal(altered('setups', [first, first])).reason).toMatch(/share an id/);
    expect(refusal(altered('setups.0.people', [...(first?.people ?? []), ...(first?.people ?? [])])).field).toBe(
      'setups[0].people'
    );
  });

  it('reads a file with a byte-order mark', () => {
    expect(readJobFile(`\uFEFF${text}`).ok).toBe(true);
  });
});
