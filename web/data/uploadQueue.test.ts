import type { UploadResult } from '@marvet/core/contract/answers';
import { describe, expect, it } from 'vitest';
import { type SendFile, UploadQueue, type UploadState, worthTelling } from './uploadQueue.ts';

interface Sending {
  name: string;
  progress(share: number, said?: string): void;
  arrive(result: Partial<UploadResult>): void;
  fail(message: string): void;
  signal: AbortSignal;
}

/** A queue whose network is in the hands of the test. */
function queueByHand() {
  const sendings: Sending[] = [];
  const send: SendFile = (_trialId, file, progress, signal) =>
    new Promise((resolve, reject) => {
      signal.addEventListener('abort', () => reject(new Error('Stopped')));
      sendings.push({
        name: file.name,
        progress: (share, said = '') => progress(share, said),
        arrive: (result) => resolve({ file: { id: file.name }, matchedBy: null, duplicate: false, ...result } as UploadResult),
        fail: (message) => reject(new Error(message)),
        signal,
      });
    });
  const queue = new UploadQueue('trial', send);
  const settled = () => new Promise<void>((resolve) => setTimeout(resolve, 0));
  return { queue, sendings, settled, states: () => queue.all().map((each) => [each.name, each.state, each.said]) };
}

const files = (...names: string[]) => names.map((name) => new File(['x'], name));

describe('files on their way', () => {
  it('go two at a time, the next as soon as one is here', async () => {
    const { queue, sendings, settled } = queueByHand();
    queue.add(files('a', 'b', 'c', 'd'));
    await settled();
    expect(sendings.map((each) => each.name)).toEqual(['a', 'b']);
    sendings[1]!.arrive({ matchedBy: 'file name' });
    await settled();
    expect(sendings.map((each) => each.name)).toEqual(['a', 'b', 'c']);
    expect(queue.all().map((each) => each.state)).toEqual(['running', 'done', 'running', 'waiting']);
  });

  it('one that fails says why and holds nobody up; the same file may be sent again', async () => {
    const { queue, sendings, settled, states } = queueByHand();
    queue.add(files('a', 'b'));
    await settled();
    sendings[0]!.fail('This is no WAV file');
    sendings[1]!.arrive({ matchedBy: 'iXML or bext' });
    await settled();
    queue.add(files('a'));
    await settled();
    sendings[2]!.arrive({ duplicate: true, file: { name: 'first.wav' } as UploadResult['file'] });
    await settled();
    expect(states()).toEqual([
      ['a', 'failed', 'This is no WAV file'],
      ['b', 'done', 'matched by iXML or bext'],
      ['a', 'done', 'the same sound is here already as first.wav'],
    ]);
  });

  it('one that waits and is stopped is never sent; one that runs is cut off', async () => {
    const { queue, sendings, settled, states } = queueByHand();
    queue.add(files('a', 'b', 'c'));
    await settled();
    const [a, , c] = queue.all() as [UploadState, UploadState, UploadState];
    queue.stop(c.id);
    queue.stop(a.id);
    await settled();
    sendings[1]!.arrive({ matchedBy: 'file name' });
    await settled();
    expect(sendings.map((each) => each.name)).toEqual(['a', 'b']);
    expect(sendings[0]!.signal.aborted).toBe(true);
    expect(states().map(([name, state, said]) => `${name} ${state} ${said}`)).toEqual(['a failed Stopped', 'b done matched by file name', 'c failed Stopped']);
  });

  it('tells whoever looks, with another list each time, how far it is', async () => {
    const { queue, sendings, settled } = queueByHand();
    const seen: number[] = [];
    const leave = queue.subscribe(() => seen.push(queue.all()[0]?.share ?? -1));
    queue.add(files('a'));
    await settled();
    const before = queue.all();
    sendings[0]!.progress(0.4);
    expect(queue.all()).not.toBe(before);
    sendings[0]!.arrive({});
    await settled();
    expect(seen).toEqual([0, 0, 0.4, 1]);
    expect(queue.all()[0]).toMatchObject({ said: 'no take yet', asks: false, unplacedId: expect.any(String) });
    leave();
    queue.clear();
    expect(queue.all()).toEqual([]);
    expect(seen).toHaveLength(4);
  });
});

describe('what is told of many', () => {
  const state = (id: number, change: Partial<UploadState>): UploadState => ({ id, name: `${id}`, share: 0, state: 'done', said: '', asks: false, unplacedId: null, ...change });
  const many = [
    ...Array.from({ length: 30 }, (_, id) => state(id, {})),
    state(30, { state: 'waiting' }),
    state(31, { asks: true }),
    state(32, { state: 'running' }),
    state(33, { state: 'failed' }),
  ];

  it('a failure stands first, however many came before it, and what came well is not listed', () => {
    expect(worthTelling(many, 6).map((each) => each.id)).toEqual([33, 32, 31, 30]);
  });

  it('of a few all are told', () => {
    expect(worthTelling(many.slice(0, 3), 6)).toHaveLength(3);
  });
});
