// @vitest-environment jsdom
import { reportOf } from '@marvet/core/testing/signals';
import { voiced } from '@marvet/core/testing/voiced';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { EventList } from './EventList.tsx';

afterEach(cleanup);
const calm = { ...reportOf([voiced(6)]).channels[0]!, events: [] };

describe('what is unusual about a take', () => {
  it('says in words that nothing is', () => {
    render(<EventList report={calm} lengthS={6} onEvent={() => undefined} />);
    expect(screen.getByText(/^Nothing: no break-ups/)).toBeTruthy();
    expect(screen.getByText('no events')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('lists every event, one that has no sure name as well, and plays the one that is asked for', () => {
    const events = [
      { kind: 'disturbance' as const, startS: 1.5, endS: 1.9, severityDb: 4 },
      { kind: 'wind' as const, startS: 3, endS: 4.2, severityDb: 9 },
    ];
    const hear = vi.fn();
    render(<EventList report={{ ...calm, events }} lengthS={6} onEvent={hear} />);
    expect(screen.getAllByRole('listitem').map((item) => item.textContent)).toEqual(['Wind at 3.0 s, 1.2 s.', 'Disturbance at 1.5 s, 400 ms.']);
    fireEvent.click(screen.getByRole('button', { name: 'Hear disturbance at 1.5 s, 400 ms' }));
    expect(hear).toHaveBeenCalledWith(events[0]);
  });
});
