/**
 * The spectrum of a sharp eye that blur is measured against: npx tsx scripts/calibrate.ts
 * From photographed and rendered eyes, each kind counting as much as the other; writes src/core/measure/reference.json.
 */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeReference } from '../src/core/measure/makeReference';
import { sharpEyes } from '../src/core/testing/eyePatches';

const { perEyes, log } = makeReference(sharpEyes());
const rounded = (values: readonly number[]) => values.map((value) => Math.round(value * 1000) / 1000);
const text = JSON.stringify({ perEyes: rounded(perEyes), log: log.map(rounded) });
writeFileSync(join(import.meta.dirname, '../src/core/measure/reference.json'), `${text}\n`);
