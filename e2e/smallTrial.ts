import { newId } from '../core/domain/identity.ts';

/** Asks the API as a page on this machine would. */
export async function ask<Result>(address: string, method: string, path: string, body?: unknown): Promise<Result> {
  const response = await fetch(`${address}/api${path}`, { method, ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'content-type': 'application/json' } }) });
  const text = await response.text();
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${text}`);
  return (text ? JSON.parse(text) : null) as Result;
}

/** A trial with two candidates and four slates, made through the API, for tests of the stages after the plan. */
export async function smallTrial(address: string): Promise<{ trialId: string; chainIds: string[]; criterionId: string }> {
  const { id: trialId } = await ask<{ id: string }>(address, 'POST', '/trials', { name: `Jetty ${newId().slice(0, 4)}`, question: 'Which one carries over the water?' });
  const at = `/trials/${trialId}`;
  const chainIds: string[] = [];
  for (const [kind, name, letters] of [
    [0, 'Quoinholt', 'QU'],
    [1, 'Lodestar', 'LO'],
  ] as const) {
    chainIds.push((await ask<{ id: string }>(address, 'POST', `${at}/chains`, { name, tape: { kind, letters }, position: kind })).id);
  }
  await ask(address, 'POST', `${at}/stations`, { name: 'jetty', hazards: ['water'] });
  const plan = await ask<{ factors: { kind: string; levels: { id: string; label: string; ticked: boolean }[] }[] }>(address, 'GET', `${at}/plan`);
  const ticked: Record<string, string[]> = { distance: ['1 m', '10 m'], windscreen: ['bare'], script: ['Neutral', 'Room tone'] };
  const factors = plan.factors.map((factor) =>
    ticked[factor.kind] ? { ...factor, levels: factor.levels.map((level) => ({ ...level, ticked: ticked[factor.kind]!.includes(level.label) })) } : factor,
  );
  await ask(address, 'PUT', `${at}/plan`, { ...plan, factors, controls: [{ name: 'Talker', value: 'Ferrier' }] });
  await ask(address, 'POST', `${at}/plan/commit`);
  const { id: criterionId } = await ask<{ id: string }>(address, 'POST', `${at}/criteria`, { name: 'Words are clear', kind: 'listened', weight: 1, best: 10, worst: 0 });
  return { trialId, chainIds, criterionId };
}
