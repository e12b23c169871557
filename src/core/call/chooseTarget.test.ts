import { describe, expect, it } from 'vitest';
import { variedSetup, variedSetups, type Varied } from '../testing/variedSetups';
import type { FocusArea } from '../setup/schema';
import { chooseTarget } from './chooseTarget';
import { oddsOverLandings } from './oddsOverLandings';
import { tryCandidate } from './places';
import { prepare } from './planSetup';
import type { FocusGroup } from './aim';
import type { Situation } from './situation';

/** Odds within this of each other are a tie. */
const tie = 0.03;

function situations({ setup, kit, habits }: Varied, focusArea: FocusArea = setup.camera.focusArea) {
  const prepared = prepare({
    setup: { ...setup, camera: { ...setup.camera, focusArea } },
    kit,
    habits,
    stopStep: 'full'
  });
  if (prepared.kind === 'noPlan') return [];
  const situation = prepared;
  return situation.groups.map((group) => ({ situation, group }));
}

/** Every place of the standing that was chosen, by itself. */
function tried(situation: Situation, group: FocusGroup, N: number) {
  const chosen = chooseTarget(situation, group, N);
  if (!chosen) return undefined;
  const { standing } = chosen.candidate;
  const places = standing === 'beside' ? group.beside : group.eyes.filter((item) => item.standing === standing);
  const all = places.map((candidate) => {
    const own = tryCandidate(situation, group, N, situation.light(N), candidate);
    const landed = oddsOverLandings(situation, group, own);
    const holds = own.odds >= situation.setup.intent.oddsWanted && own.worstRatio <= 1 + 1e-9;
    return { candidate, own, landed, holds };
  });
  return { chosen, all };
}

describe('whose eye', () => {
  it('is among the best that can be had there, and the most preferred of those', () => {
    let several = 0;
    for (const varied of [...variedSetups(60), ...variedSetups(60, true)]) {
      for (const { situation, group } of situations(varied, 'point')) {
        for (const N of [situation.sharpness.widestFNumber, 5.6]) {
          const found = tried(situation, group, N);
          if (!found || found.all.length > 16) continue;
          const { chosen, all } = found;
          const best = Math.max(...all.map(({ own }) => own.odds));
          const entry = all.find(({ candidate }) => candidate === chosen.candidate);
          if (!entry) throw new Error('not one of the places');
          expect(chosen.odds).toBeCloseTo(entry.own.odds, 9);
          if (best <= 0.001) {
            const least = Math.min(...all.map(({ own }) => own.worstRatio));
            expect(entry.own.worstRatio).toBeLessThanOrEqual(least + 0.05 + 1e-9);
            continue;
          }
          const wanted = situation.setup.intent.oddsWanted;
          const asGood = all.filter(({ own }) => own.odds >= best - tie && (best < wanted || own.odds >= wanted));
          const sharp = asGood.filter(({ own }) => own.worstRatio <= 1 + 1e-9);
          const good = all.some(({ own }) => own.odds === best && own.worstRatio <= 1 + 1e-9) ? sharp : asGood;
          expect(good).toContain(entry);
          // Of those more readily focused on none lies in the same row with nothing before or beside it.
          const preferred = good.slice(0, good.indexOf(entry)).slice(1);
          const row = good[0]?.candidate.focusDistanceMm ?? 0;
          for (const { candidate, own, landed } of preferred) {
            if (Math.abs(candidate.focusDistanceMm - row) <= 300) expect(landed).toBeLessThan(own.odds - tie);
          }
          if (good.length > 1) several += 1;
        }
      }
    }
    expect(several).toBeGreaterThan(20);
  });

  it('and its odds are the same whatever area autofocus is left with: what that takes instead is said beside it', () => {
    const areas = ['wholeFrame', 'tracking', 'eyeDetection'] as const;
    let compared = 0;
    for (const varied of variedSetups(25, true)) {
      const odds = areas.flatMap((area) =>
        situations(varied, area).map(({ situation, group }) => chooseTarget(situation, group, 4)?.odds)
      );
      const [first] = odds;
      if (first === undefined || situations(varied).length > 1) continue;
      for (const other of odds) expect(other).toBeCloseTo(first, 9);
      compared += 1;
    }
    expect(compared).toBeGreaterThan(10);
  });

  it('is nobody’s where there is nobody', () => {
    const [first] = situations(variedSetup(1, true));
    if (!first) throw new Error('no situation');
    const { situation, group } = first;
    expect(chooseTarget(situation, { ...group, eyes: [], beside: [] }, 4)).toBeUndefined();
  });
});
