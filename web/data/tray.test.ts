import { describe, expect, it } from 'vitest';
import { dateText, dateTimeText } from '../parts/dateText.ts';
import { durationText } from '../parts/durationText.ts';
import { cautionDismissed, cautionsShownAgain, look, themeChosen } from './look.ts';
import { inTray, picked, replaced, tray, underTestChosen } from './tray.ts';

const entry = (takeId: string, setupId = 'QO') => ({ takeId, setupId });
const after = (...actions: Parameters<typeof tray.reducer>[1][]) => actions.reduce(tray.reducer, tray.getInitialState());
const pick = (takeId: string, setupId?: string, trialId = 'saltreach') => picked({ trialId, entry: entry(takeId, setupId) });

describe('the tray', () => {
  it('takes up, and puts back what is taken up again', () => {
    expect(after(pick('1'), pick('2')).byTrial.saltreach).toEqual([entry('1'), entry('2')]);
    expect(after(pick('1'), pick('2'), pick('1')).byTrial.saltreach).toEqual([entry('2')]);
  });
  it('tells candidates of one take apart', () => {
    const state = after(pick('1', 'QO'), pick('1', 'LB'));
    expect(state.byTrial.saltreach).toHaveLength(2);
    expect(inTray(state.byTrial.saltreach ?? [], entry('1', 'LB'))).toBe(true);
    expect(inTray(state.byTrial.saltreach ?? [], entry('1', 'WH'))).toBe(false);
  });
  it('keeps a tray for each trial', () => {
    const state = after(pick('1'), pick('2', 'QO', 'wheelhouse'));
    expect(state.byTrial).toEqual({ saltreach: [entry('1')], wheelhouse: [entry('2')] });
  });
  it('holds eight; the oldest falls out', () => {
    const state = after(...Array.from({ length: 10 }, (_, index) => pick(String(index))));
    expect(state.byTrial.saltreach?.map((each) => each.takeId)).toEqual(['2', '3', '4', '5', '6', '7', '8', '9']);
  });
  it('is replaced by a fair set, and knows the factor under test', () => {
    const state = after(pick('1'), pick('2'), replaced({ trialId: 'saltreach', entries: [entry('7'), entry('8')] }), underTestChosen('distance'));
    expect(state).toEqual({ byTrial: { saltreach: [entry('7'), entry('8')] }, underTest: 'distance' });
  });
});

describe('what a person chose to see', () => {
  it('remembers theme and cautions that were put away, each once', () => {
    const state = [themeChosen('dusk'), cautionDismissed('jetty: water'), cautionDismissed('jetty: water')].reduce(look.reducer, look.getInitialState());
    expect(state).toEqual({ theme: 'dusk', dismissedCautions: ['jetty: water'] });
    expect(look.reducer(state, cautionsShownAgain()).dismissedCautions).toEqual([]);
  });
});

describe('words for times', () => {
  it.each([
    [0, '0 s'],
    [59.4, '59 s'],
    [60, '1 min'],
    [3540, '59 min'],
    [3600, '1 h'],
    [5400, '1 h 30 min'],
    [86_400, '24 h'],
  ])('%f s is %s', (seconds, text) => {
    expect(durationText(seconds)).toBe(text);
  });
  it('writes the month in letters', () => {
    const noon = new Date(2026, 4, 12, 12, 5).getTime();
    expect(dateText(noon)).toBe('12 May 2026');
    expect(dateTimeText(noon)).toBe('12 May 2026, 12:05');
  });
});
