import type { DeviceState } from '../domain/device.ts';
import type { CaptureHeard } from './captures.ts';

/** Kinds of answers that a page keeps, and that a change makes stale. */
export const RECORD_TAGS = [
  'Trials',
  'Criteria',
  'Marks',
  'Items',
  'Chains',
  'Stations',
  'Scripts',
  'Placements',
  'Rigs',
  'Frames',
  'Wearers',
  'Sights',
  'Devices',
  'VoiceNotes',
  'Preflight',
  'Photos',
  'Plan',
  'Takes',
  'Files',
  'Sounds',
  'Recordings',
  'Rounds',
  'Round',
  'Moments',
  'Verdict',
  'Bin',
  'Storage',
  'Door',
  'Captures',
] as const;
export type RecordTag = (typeof RECORD_TAGS)[number];

/** What something of a trial that comes or goes as a whole can make stale. */
export const TAGS_OF_TRIAL = [
  'Trials',
  'Criteria',
  'Chains',
  'Stations',
  'Placements',
  'Rigs',
  'Frames',
  'Wearers',
  'Sights',
  'Devices',
  'Scripts',
  'Plan',
  'Takes',
  'Files',
  'Recordings',
  'Rounds',
  'Moments',
  'Verdict',
  'Bin',
] as const satisfies readonly RecordTag[];

/** What a page hears of while it is open. */
export type TrialEvent =
  /** How far the measuring of a file is, 0 to 1. */
  | { type: 'progress'; fileId: string; share: number }
  /** A file or its recordings changed: only they need to be asked for again. */
  | { type: 'file'; fileId: string }
  /** Records changed; `page` is the page that changed them, which knows already. */
  | { type: 'records'; tags: RecordTag[]; page: string | null }
  /** How a device is, and what it tells right now. */
  | { type: 'device'; state: DeviceState }
  /** What was heard in the last seconds of a take that is being recorded. */
  | { type: 'capture'; told: CaptureHeard }
  /** What was missed cannot be told one by one: everything is to be asked for again. */
  | { type: 'all' };

/** Header by which a page says which it is. */
export const PAGE_HEADER = 'x-marvet-page';
