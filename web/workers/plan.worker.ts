import { workOutPlan } from '@marvet/core/plan/workOut';
import type { PlanReply, PlanRequest } from './planMessages.ts';

/** Works plans out beside the page, so that it stays quick however large they are. */
self.onmessage = ({ data }: MessageEvent<PlanRequest>) => {
  const reply = (message: PlanReply) => self.postMessage(message);
  reply({ kind: 'done', result: workOutPlan(data.plan, data.context, (share) => reply({ kind: 'progress', share })) });
};
