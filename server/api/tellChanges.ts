import { PAGE_HEADER, type RecordTag, TAGS_OF_TRIAL } from '@marvet/core/contract/events';
import type { MiddlewareHandler } from 'hono';
import type { EventBus } from '../jobs/events.ts';

/** What a change under an address makes stale on other pages. */
const STALE: Record<string, readonly RecordTag[]> = {
  criteria: ['Criteria', 'Trials', 'Verdict', 'Bin'],
  chains: ['Chains', 'Plan', 'Trials', 'Verdict', 'Bin'],
  stations: ['Stations', 'Plan', 'Bin'],
  placements: ['Placements', 'Plan', 'Bin'],
  rigs: ['Rigs', 'Plan', 'Bin'],
  frames: ['Frames', 'Bin'],
  wearers: ['Wearers', 'Bin'],
  sights: ['Sights', 'Bin'],
  devices: ['Devices', 'Bin'],
  'voice-notes': ['VoiceNotes'],
  scripts: ['Scripts', 'Plan', 'Bin'],
  marks: ['Marks', 'Verdict'],
  plan: ['Plan'],
  preflight: ['Preflight'],
  takes: ['Takes', 'Trials', 'Verdict', 'Bin'],
  files: ['Files', 'Recordings', 'Trials', 'Verdict', 'Bin'],
  moments: ['Moments', 'Bin'],
  rounds: ['Rounds', 'Trials', 'Verdict', 'Bin'],
  'starting-point': ['Criteria', 'Scripts', 'Plan', 'Trials', 'Verdict', 'Bin'],
  bin: TAGS_OF_TRIAL,
  // What a file or a line of the log changes is told by the one that changes it.
  recordings: [],
  captures: [],
  log: [],
};
const OF_TRIAL: RecordTag[] = ['Trials', 'Verdict'];
const OF_ALL: Record<string, RecordTag[]> = {
  items: ['Items', 'Verdict'],
  library: ['Placements', 'Rigs'],
  photos: ['Photos'],
  restore: ['Items', 'Rounds', 'Trials', 'Verdict'],
  listen: ['Rounds', 'Round', 'Trials', 'Verdict'],
};

/**
 * Tells other pages what a change made stale, once it was answered. One place for all addresses, so that
 * no route can forget it. The page that made the change says who it is, and knows already.
 */
export function tellChanges(events: EventBus): MiddlewareHandler {
  return async (context, next) => {
    await next();
    if (context.req.method === 'GET' || !context.res.ok) return;
    const page = context.req.header(PAGE_HEADER) ?? null;
    const [, , resource, trialId, part, which, detail] = context.req.path.split('/');
    if (resource === 'trials' && trialId) {
      // Bringing files in is told file by file.
      if (part === 'files' && ((context.req.method === 'POST' && !detail) || which === 'arriving')) return;
      const tags = part === undefined ? OF_TRIAL : (STALE[part] ?? OF_TRIAL);
      if (tags.length > 0) events.tell(trialId, { type: 'records', tags: [...tags], page });
      return;
    }
    const tags = OF_ALL[resource ?? ''];
    if (tags) events.tellAll({ type: 'records', tags, page });
  };
}
