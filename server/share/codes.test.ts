import { describe, expect, it } from 'vitest';
import { type Clock, CODE_LASTS_MS, type Grant, MOST_TRIES, openCodes } from './codes.ts';

const GRANT: Grant = { trialId: 't', role: 'log', listenerId: null };

/** A clock that goes on when somebody waits. */
function clockAt(nowMs = 0): Clock & { pass(ms: number): void; waited: number[] } {
  const clock = {
    waited: [] as number[],
    nowMs: () => nowMs,
    pass(ms: number) {
      nowMs += ms;
    },
    async wait(ms: number) {
      clock.waited.push(ms);
      nowMs += ms;
    },
  };
  return clock;
}
const wrongOf = (code: string) => String((Number(code) + 1) % 1_000_000).padStart(6, '0');

describe('a code', () => {
  it('is six digits, opens once, and never again', async () => {
    const codes = openCodes(clockAt());
    const { code } = codes.give(GRANT);
    expect(code).toMatch(/^\d{6}$/);
    expect(await codes.tried(code)).toEqual({ grant: GRANT });
    expect(await codes.tried(code)).toEqual({ wrong: 'void' });
  });

  it('lives two minutes, not a moment longer', async () => {
    const clock = clockAt();
    const codes = openCodes(clock);
    const { code } = codes.give(GRANT);
    clock.pass(CODE_LASTS_MS - 1);
    expect(codes.current()).not.toBeNull();
    clock.pass(1);
    expect(codes.current()).toBeNull();
    expect(await codes.tried(code)).toEqual({ wrong: 'void' });
  });

  it('a new one voids the one before; one that is withdrawn opens nothing', async () => {
    const codes = openCodes(clockAt());
    const first = codes.give(GRANT).code;
    const second = codes.give(GRANT).code;
    if (first !== second) expect(await codes.tried(first)).toEqual({ wrong: 'code' });
    codes.withdraw();
    expect(await codes.tried(second)).toEqual({ wrong: 'void' });
  });
});

describe('guessing', () => {
  it('each wrong try waits twice as long as the one before, and the fifth voids the code', async () => {
    const clock = clockAt();
    const codes = openCodes(clock);
    const { code } = codes.give(GRANT);
    const tried = [];
    for (let guess = 0; guess < MOST_TRIES; guess++) tried.push(await codes.tried(wrongOf(code)));
    expect(clock.waited).toEqual([500, 1000, 2000, 4000, 8000]);
    expect(tried.map((each) => ('wrong' in each ? each.wrong : 'in'))).toEqual(['code', 'code', 'code', 'code', 'void']);
    expect(await codes.tried(code)).toEqual({ wrong: 'void' });
    expect(codes.wrongTries()).toBe(MOST_TRIES + 1);
    expect(codes.lastWrongAtMs()).not.toBeNull();
  });

  it('many at once wait for one another, and more than a few are turned away unread', async () => {
    const clock = clockAt();
    const codes = openCodes(clock);
    const { code } = codes.give(GRANT);
    const tried = await Promise.all(Array.from({ length: 40 }, () => codes.tried(wrongOf(code))));
    expect(tried.filter((each) => 'wrong' in each && each.wrong === 'busy')).toHaveLength(32);
    expect(clock.waited).toHaveLength(8);
    expect(codes.current()).toBeNull();
  });

  it('without a code every try is slow', async () => {
    const clock = clockAt();
    await openCodes(clock).tried('000000');
    expect(clock.waited).toEqual([8000]);
  });
});
