import { randomInt, timingSafeEqual } from 'node:crypto';
import type { GuestRole } from '@marvet/core/domain/guest';

/** What a code opens the door for. */
export interface Grant {
  trialId: string;
  role: GuestRole;
  listenerId: string | null;
}

export const CODE_LASTS_MS = 120_000;
/** After so many wrong tries a code is void: of a million codes, five were tried. */
export const MOST_TRIES = 5;
const FIRST_WAIT_MS = 500;
/** Tries that wait at once; more are turned away. */
const MOST_WAITING = 8;

/** Time, and how to wait: tests have their own. */
export interface Clock {
  nowMs(): number;
  wait(ms: number): Promise<void>;
}

export const CLOCK: Clock = { nowMs: Date.now, wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms).unref()) };

/** What became of a code that was tried. */
export type Tried = { grant: Grant } | { wrong: 'code' | 'void' | 'busy' };

/** One code at a time, good once, for two minutes. Wrong tries wait longer each, one after the other, and void it in the end. */
export interface Codes {
  give(grant: Grant): { code: string; expiresAtMs: number };
  current(): (Grant & { code: string; expiresAtMs: number }) | null;
  withdraw(): void;
  tried(code: string): Promise<Tried>;
  wrongTries(): number;
  lastWrongAtMs(): number | null;
}

export function openCodes(clock: Clock = CLOCK): Codes {
  let given: (Grant & { code: string; expiresAtMs: number; wrong: number }) | null = null;
  let wrongTries = 0;
  let lastWrongAtMs: number | null = null;
  let waiting = 0;
  let last: Promise<unknown> = Promise.resolve();
  const current = () => (given && given.expiresAtMs > clock.nowMs() ? given : null);

  async function look(code: string): Promise<Tried> {
    const open = current();
    if (open && same(open.code, code)) {
      given = null;
      const { trialId, role, listenerId } = open;
      return { grant: { trialId, role, listenerId } };
    }
    wrongTries++;
    lastWrongAtMs = clock.nowMs();
    const wrong = open ? ++open.wrong : MOST_TRIES;
    if (open && wrong >= MOST_TRIES) given = null;
    await clock.wait(FIRST_WAIT_MS * 2 ** (Math.min(wrong, MOST_TRIES) - 1));
    return { wrong: current() ? 'code' : 'void' };
  }

  return {
    give(grant) {
      const code = String(randomInt(1_000_000)).padStart(6, '0');
      given = { ...grant, code, expiresAtMs: clock.nowMs() + CODE_LASTS_MS, wrong: 0 };
      return { code, expiresAtMs: given.expiresAtMs };
    },
    current,
    withdraw() {
      given = null;
    },
    async tried(code) {
      if (waiting >= MOST_WAITING) return { wrong: 'busy' };
      waiting++;
      // One after the other: guessing from many sides at once is no quicker.
      const looking = last.then(() => look(code)).finally(() => waiting--);
      last = looking.catch(() => undefined);
      return looking;
    },
    wrongTries: () => wrongTries,
    lastWrongAtMs: () => lastWrongAtMs,
  };
}

function same(a: string, b: string): boolean {
  const [left, right] = [Buffer.from(a), Buffer.from(b)];
  return left.length === right.length && timingSafeEqual(left, right);
}
