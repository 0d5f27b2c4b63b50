import type { CaptureState } from '@marvet/core/contract/captures';
import type { CaptureDraft } from '@marvet/core/domain/capture';

/** Takes that are recorded straight into the data folder. */
export interface Captures {
  begin(trialId: string, draft: CaptureDraft): Promise<CaptureState>;
  /** Those that are not closed. */
  open(trialId: string): Promise<CaptureState[]>;
  /**
   * Puts a piece on the disk. One that is there already counts as put.
   * @returns how many whole pieces are there
   * @throws ApiError 409 where one before it is missing, 410 where the recording was closed without it
   */
  put(trialId: string, id: string, number: number, bytes: Uint8Array): Promise<number>;
  /** Makes the file of a recording, measured and in its place; into the bin where it was an accident. */
  finish(trialId: string, id: string, binned?: boolean): Promise<CaptureState>;
  close(): Promise<void>;
}
