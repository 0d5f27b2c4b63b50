import type { ItemDraft } from '../domain/item.ts';
import type { LogLine } from '../domain/logLine.ts';
import type { AudioFile, MatchedBy } from '../domain/recording.ts';

/** Kinds of what a trial's bin holds, and the address under which each is deleted. */
export const BIN_KINDS = {
  criterion: 'criteria',
  chain: 'chains',
  station: 'stations',
  placement: 'placements',
  rig: 'rigs',
  frame: 'frames',
  wearer: 'wearers',
  sight: 'sights',
  device: 'devices',
  script: 'scripts',
  take: 'takes',
  file: 'files',
  round: 'rounds',
  moment: 'moments',
} as const;
export type BinKind = keyof typeof BIN_KINDS;

/** A deleted thing as the bin knows it. */
export interface Binned {
  kind: BinKind;
  id: string;
  name: string;
  binnedAtMs: number;
}

/** What an import of items did, and what takes it back. */
export interface ImportedItems {
  added: number;
  addedIds: string[];
  replaced: { id: string; draft: ItemDraft }[];
}

/** What making slates did: takes in all, and of them new, kept, dropped into the bin, and kept though the plan has them no longer. */
export interface CommitResult {
  takes: number;
  added: number;
  kept: number;
  dropped: number;
  stayed: number;
}

/** What became of lines of the field log: taken, taken though their take is gone, refused and why. */
export interface LogAnswer {
  accepted: string[];
  unknown: string[];
  refused: { id: string | null; why: string }[];
  /** By how much the sender's own clock is behind this computer's; 0 where it is right. Its lines were moved by what of it the sender had not added itself. */
  clockBehindMs: number;
}

/** A line of the log with who wrote it: the name of a device that was let in, or null on this computer. */
export interface WrittenLine {
  line: LogLine;
  writer: string | null;
  clockBehindMs: number | null;
  receivedAtMs: number;
}

/** A file that came in, how it found its take, and whether the same bytes were here already. */
export interface UploadResult {
  file: AudioFile;
  matchedBy: MatchedBy | null;
  duplicate: boolean;
}

/** Bytes that nothing refers to. */
export interface LooseBytes {
  count: number;
  bytes: number;
}

/** That the server runs, and what was wrong with the data folder when it started. */
export interface Health {
  status: 'ok';
  version: string;
  troubles: string[];
}

/** What came in with an archive. */
export interface BroughtIn {
  trialId: string;
  name: string;
  files: number;
  /** Bytes that were missing already where it was made. */
  missing: number;
  /** Items that were here already, and stayed as they are. */
  itemsKept: number;
}
