import { EntitySchema } from 'typeorm';
import { flag, json, jsonOrNull, key, real, realOrNull, text, textOrNull, whole, wholeOrNull } from './columns.ts';
import { ChainEntity, ItemEntity, MarkEntity, PhotoEntity, PreflightEntity } from './kitEntities.ts';
import type * as rows from './rows.ts';

export const TrialEntity = new EntitySchema<rows.TrialRow>({
  name: 'trial',
  columns: {
    id: key,
    name: text,
    question: text,
    use: text,
    place: text,
    sample: flag,
    createdAtMs: whole,
    binnedAtMs: wholeOrNull,
    verdictOpenedAtMs: wholeOrNull,
    roles: json,
    budget: jsonOrNull,
    comparisons: json,
  },
});

export const ExpectationEntity = new EntitySchema<rows.ExpectationRow>({
  name: 'expectation',
  columns: { trialId: key, person: key, candidateId: text, reason: text, sealedAtMs: whole },
});

export const CriterionEntity = new EntitySchema<rows.CriterionRow>({
  name: 'criterion',
  columns: {
    id: key,
    trialId: text,
    name: text,
    kind: text,
    measureId: textOrNull,
    weight: real,
    best: real,
    worst: real,
    aggregation: text,
    where: json,
    worstWords: text,
    bestWords: text,
    dealbreaker: jsonOrNull,
    remark: text,
    position: whole,
    binnedAtMs: wholeOrNull,
  },
});

export const StationEntity = new EntitySchema<rows.StationRow>({
  name: 'station',
  columns: {
    id: key,
    trialId: text,
    name: text,
    surfaces: text,
    noise: text,
    indoors: flag,
    latitudeDeg: realOrNull,
    longitudeDeg: realOrNull,
    needsDaylight: flag,
    hazards: json,
    remark: text,
    position: whole,
    binnedAtMs: wholeOrNull,
  },
});

export const ScriptEntity = new EntitySchema<rows.ScriptRow>({
  name: 'script',
  columns: { id: key, trialId: text, name: text, text, purpose: text, talker: text, lengthS: real, position: whole, binnedAtMs: wholeOrNull },
});

export const PlanEntity = new EntitySchema<rows.PlanRow>({
  name: 'plan',
  columns: {
    trialId: key,
    factors: json,
    leftOut: json,
    rules: json,
    design: json,
    repeats: whole,
    together: flag,
    togetherLimits: json,
    controls: json,
    changeTimesS: json,
    changeExceptions: json,
    overheadS: real,
    order: json,
    day: json,
    faultSearch: jsonOrNull,
    committedAtMs: wholeOrNull,
  },
});

export const TakeEntity = new EntitySchema<rows.TakeRow>({
  name: 'take',
  columns: {
    id: key,
    trialId: text,
    slate: whole,
    pass: whole,
    position: whole,
    condition: json,
    candidateIds: json,
    status: text,
    startedAtMs: wholeOrNull,
    stoppedAtMs: wholeOrNull,
    flags: json,
    note: text,
    gains: json,
    windMs: realOrNull,
    noiseDba: realOrNull,
    controls: json,
    binnedAtMs: wholeOrNull,
  },
});

export const LogLineEntity = new EntitySchema<rows.LogLineRow>({
  name: 'log_line',
  columns: { id: key, trialId: text, takeId: text, atMs: whole, receivedAtMs: whole, line: json },
});

export const AudioFileEntity = new EntitySchema<rows.AudioFileRow>({
  name: 'audio_file',
  columns: {
    id: key,
    trialId: text,
    name: text,
    sha256: text,
    sizeBytes: whole,
    uploadedAtMs: whole,
    format: json,
    state: text,
    failure: textOrNull,
    methodVersion: wholeOrNull,
    warnings: json,
    programme: jsonOrNull,
    takeId: textOrNull,
    matchedBy: textOrNull,
    binnedAtMs: wholeOrNull,
  },
});

export const RecordingEntity = new EntitySchema<rows.RecordingRow>({
  name: 'recording',
  columns: {
    id: key,
    fileId: text,
    trialId: text,
    channelIndex: whole,
    trackName: textOrNull,
    candidateId: textOrNull,
    figures: jsonOrNull,
    report: jsonOrNull,
    series: jsonOrNull,
    roomTone: jsonOrNull,
  },
});

export const RoundEntity = new EntitySchema<rows.RoundRow>({
  name: 'round',
  columns: {
    id: key,
    trialId: text,
    title: text,
    recordingIds: json,
    criterionIds: json,
    targetLufs: real,
    ceilingDbtp: real,
    matchedLufs: real,
    gainsDb: json,
    sample: flag,
    createdAtMs: whole,
    binnedAtMs: wholeOrNull,
  },
});

export const ListenerEntity = new EntitySchema<rows.ListenerRow>({
  name: 'listener',
  columns: {
    id: key,
    roundId: text,
    name: text,
    listenedOn: text,
    sample: flag,
    createdAtMs: whole,
    finishedAtMs: wholeOrNull,
    order: json,
    binnedAtMs: wholeOrNull,
  },
});

export const RatingEntity = new EntitySchema<rows.RatingRow>({
  name: 'rating',
  columns: { listenerId: key, letter: key, criterionId: key, points: whole, reason: text },
});

export const ENTITIES = [
  TrialEntity,
  ExpectationEntity,
  PreflightEntity,
  PhotoEntity,
  CriterionEntity,
  MarkEntity,
  ItemEntity,
  ChainEntity,
  StationEntity,
  ScriptEntity,
  PlanEntity,
  TakeEntity,
  LogLineEntity,
  AudioFileEntity,
  RecordingEntity,
  RoundEntity,
  ListenerEntity,
  RatingEntity,
];

export { ChainEntity, ItemEntity, MarkEntity, PhotoEntity, PreflightEntity };
