import { rm } from 'node:fs/promises';
import { readWavHeader } from '@marvet/core/audio/readWavHeader';
import { WavError, type WavLayout } from '@marvet/core/audio/wavFormat';
import type { BlobStore, StagedBlob, StoredBlob } from '../audio/blobs.ts';
import { withFileSource } from '../audio/fileSource.ts';
import type { WorkerPool } from '../jobs/pool.ts';
import { JobFailure } from '../jobs/runner.ts';
import { ApiError } from './http.ts';

const READ_HERE = 'It is none of the files that are read: WAV, FLAC, AIFF, MP3, AAC, Ogg, or the sound of MP4 and MOV.';

/** A file that came in, looked at: what it is, and how it is given its names for good. */
export interface TakenIn {
  layout: WavLayout;
  /** Called inside the write of the record. */
  keep(): Promise<StoredBlob & { originalSha256: string | null }>;
  /** The bytes as they came, and the sound in them; the same where nothing had to be taken out. */
  originalSha256: string;
  sha256: string;
  /** Lets go of what is only on its way; nothing that was kept. */
  tidy(): Promise<void>;
}

/**
 * Looks at a file that came in. A WAVE file is taken as it is; of any other its sound is taken out into one, in a
 * thread, and both are kept: the file as it came can be taken out again.
 * @throws ApiError 422 that names the file and says what is wrong with it; then nothing is left behind
 */
export async function takeIn({ blobs, pool }: { blobs: BlobStore; pool: WorkerPool }, staged: StagedBlob, name: string, signal: AbortSignal): Promise<TakenIn> {
  try {
    const layout = withFileSource(staged.path, readWavHeader);
    const keep = async () => ({ ...(await staged.keep()), originalSha256: null });
    return { layout, keep, originalSha256: staged.sha256, sha256: staged.sha256, tidy: staged.discard };
  } catch (error) {
    if (!(error instanceof WavError) || error.code !== 'not-wav') {
      await staged.discard();
      if (error instanceof WavError) throw new ApiError(422, error.code, `${name}: ${error.message}`);
      throw error;
    }
  }
  const out = `${staged.path}.wav`;
  try {
    const sound = await pool.run({ kind: 'decode' as const, path: staged.path, out }, signal);
    if (!sound) throw new ApiError(422, 'not-wav', `${name}: ${READ_HERE}`);
    const { container, codec, lossy, trackNames, stereoFrom, startsAt, warnings } = sound;
    const wav = withFileSource(out, readWavHeader);
    const taken = await blobs.stageFile(out);
    return {
      layout: { ...wav, format: { ...wav.format, container, codec, lossy, trackNames, stereoFrom, startsAt, remarks: warnings } },
      originalSha256: staged.sha256,
      sha256: taken.sha256,
      async keep() {
        const original = await staged.keep();
        const { sha256 } = await taken.keep();
        return { sha256, sizeBytes: original.sizeBytes, originalSha256: original.sha256 };
      },
      async tidy() {
        await staged.discard();
        await rm(out, { force: true });
      },
    };
  } catch (error) {
    await staged.discard();
    await rm(out, { force: true });
    if (error instanceof JobFailure) throw new ApiError(422, 'unsupported-format', `${name}: ${error.message}`);
    throw error;
  }
}
