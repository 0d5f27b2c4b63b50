// @vitest-environment jsdom
import { reportOf } from '@marvet/core/testing/signals';
import { voiced } from '@marvet/core/testing/voiced';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { EventList } from './EventList.tsx';

afterEach(cleanup);
const calm = { ...reportOf([voiced(6)]).channels[0]!, events: [] };
const shown = (props: Partial<Parameters<typeof EventList>[0]>) =>
  render(
    <EventList
      report={calm}
      lengthS={6}
      events={[]}
      corrections={[]}
      chosen={null}
      csvHref="events.csv"
      onHear={() => undefined}
      onChoose={() => undefined}
      onTakeBack={() => undefined}
      {...props}
    />,
  );
const noise = { kind: 'disturbance' as const, startS: 1.5, endS: 1.9, severityDb: 4 };
const gust = { kind: 'wind' as const, startS: 3, endS: 4.2, severityDb: 9 };

describe('what is unusual about a take', () => {
  it('says in words that nothing is', () => {
    shown({});
    expect(screen.getByText(/^Nothing: no break-ups/)).toBeTruthy();
    expect(screen.getByText('no events')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('lists every event, one that has no sure name as well, and plays or takes in hand the one that is asked for', () => {
    const [hear, choose] = [vi.fn(), vi.fn()];
    shown({ events: [noise, gust], onHear: hear, onChoose: choose });
    expect(screen.getAllByRole('listitem').map((item) => item.textContent)).toEqual(['Wind at 3.0 s, 1.2 s.', 'Disturbance at 1.5 s, 400 ms.']);
    fireEvent.click(screen.getByRole('button', { name: 'Hear disturbance at 1.5 s, 400 ms' }));
    expect(hear).toHaveBeenCalledWith(noise);
    fireEvent.click(screen.getByRole('button', { name: 'Correct wind at 3.0 s, 1.2 s' }));
    expect(choose).toHaveBeenCalledWith(gust);
  });

  it('says which are by hand, not how bad one is that is still being measured, and which are none by ear', () => {
    const takeBack = vi.fn();
    const none = { id: 'c', was: { kind: 'click' as const, startS: 5, endS: 5.001 }, now: null };
    shown({ events: [{ ...gust, correctionId: 'd', severityDb: 0, pending: true }], corrections: [none], onTakeBack: takeBack });
    expect(screen.getByRole('img', { name: 'marked by hand' })).toBeTruthy();
    expect(screen.queryByText('0 dB')).toBeNull();
    expect(screen.getByText('click at 5.0 s, 1 ms')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'As it was found' }));
    expect(takeBack).toHaveBeenCalledWith(none);
  });
});
