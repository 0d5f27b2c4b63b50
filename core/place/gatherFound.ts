import type { StoredChain } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';
import type { Plan } from '../domain/plan.ts';
import type { Figures } from '../domain/recording.ts';
import type { StoredStation } from '../domain/station.ts';
import { isSpoiled, setupCondition, type Take, type TakeSetup } from '../domain/take.ts';
import type { MicrophonePattern } from '../simulate/microphone.ts';
import type { FoundRecording } from './foreseen.ts';
import { heardAs, type PlaceRecords } from './heardAs.ts';
import type { TwoSpectra } from './learned.ts';
import { PATTERN_OF } from './patterns.ts';

/** A recording that has its place in a take, as far as it counts here. */
export interface MeasuredRecording {
  id: string;
  takeId: string;
  setupId: string;
  figures: Partial<Figures>;
  spectra: TwoSpectra | null;
}

/** Records of one trial. */
export interface TrialPlaces extends PlaceRecords {
  plan: Pick<Plan, 'factors'>;
  takes: readonly Take[];
  stations: ReadonlyMap<string, StoredStation>;
  candidates: ReadonlyMap<string, Pick<StoredChain, 'links'>>;
  items: ReadonlyMap<string, Pick<Item, 'kind' | 'pattern'>>;
}

const OMNI: MicrophonePattern = { pressureShare: 1, tubeM: 0 };

/** Every recording of a trial with what is known of its setup; those of which neither spot nor boom is known are left out. */
export function gatherFound(recordings: readonly MeasuredRecording[], trial: TrialPlaces): FoundRecording[] {
  const takes = new Map(trial.takes.filter((take) => !isSpoiled(take)).map((take) => [take.id, take]));
  return recordings.flatMap((recording): FoundRecording[] => {
    const take = takes.get(recording.takeId);
    const setup = take?.setups.find(({ id }) => id === recording.setupId);
    const as = take && setup ? heardAs(take, setup, trial) : null;
    const station = take && trial.stations.get(take.condition.station);
    if (!take || !setup || !as || !station) return [];
    return [
      {
        recordingId: recording.id,
        takeId: take.id,
        candidateId: setup.candidateId,
        stationId: station.id,
        place: station.acoustics,
        noiseDba: take.noiseDba,
        windMs: take.windMs ?? station.acoustics.windMs,
        screen: setupCondition(take, setup).windscreen ?? null,
        as,
        boomDistanceM: as.kind === 'boom' ? (as.placement?.distanceM ?? distanceOf(take, setup, trial.plan)) : null,
        pattern: patternOf(setup.candidateId, trial),
        gains: JSON.stringify(take.gains[setup.id] ?? null),
        found: {
          snrDb: recording.figures['noise.snrDb'] ?? null,
          reverberationS: recording.figures['character.reverberationS'] ?? null,
          activeLevelDbfs: recording.figures['activity.activeLevelDbfs'] ?? null,
          spectra: recording.spectra,
        },
      },
    ];
  });
}

/** The number of its level of distance, in metres; null where the level has none. */
function distanceOf(take: Take, setup: TakeSetup, { factors }: Pick<Plan, 'factors'>): number | null {
  const factor = factors.find(({ kind }) => kind === 'distance');
  const metres = factor?.levels.find(({ id }) => id === setupCondition(take, setup).distance)?.value ?? null;
  return metres !== null && metres > 0 ? metres : null;
}

function patternOf(candidateId: string, { candidates, items }: TrialPlaces): MicrophonePattern {
  const microphone = candidates
    .get(candidateId)
    ?.links.map(({ itemId }) => items.get(itemId))
    .find((item) => item?.kind === 'microphone');
  return microphone?.pattern ? PATTERN_OF[microphone.pattern] : OMNI;
}
