import { fewestRight, GUESSED, LEVEL, leastHeard, type Preferred, type Told } from './doubt.ts';

/** A share in whole per cent; a small one with one digit, so that it is not called nothing. */
export function percentText(share: number): string {
  const percent = share * 100;
  if (percent < 0.1) return 'less than 0.1 %';
  return `${percent < 10 ? percent.toFixed(1) : percent.toFixed(0)} %`;
}

/** What a test of so many comparisons can find, told before anybody listens. */
export function foreseenText(kind: 'same' | 'odd' | 'better', comparisons: number): string {
  const [guessed, level] = kind === 'better' ? [0.5, LEVEL / 2] : [GUESSED[kind], LEVEL];
  const needed = fewestRight(comparisons, guessed, level);
  const least = leastHeard(comparisons, guessed, level);
  const all = `${comparisons} ${comparisons === 1 ? 'comparison' : 'comparisons'}`;
  if (needed === null || least === null) return `${all} by one listener prove nothing, whatever is answered: guessing gets all of them too often. Choose more.`;
  if (kind === 'better')
    return `Of ${all} by one listener ${needed} must go one way to be more than chance. A preference is found, four times of five, where it is there in ${percentText(0.5 + least / 2)} of choices or more.`;
  return `Of ${all} by one listener ${needed} must be right: who guesses gets as many in one test of twenty at most. A difference is found, four times of five, where it is truly heard in ${percentText(least)} of comparisons or more.`;
}

/** What came of comparisons with a right answer, as a sentence; that two cannot be told apart is a result. */
export function toldText({ right, tries, byGuessing, worseByGuessing, needed, heard, leastHeard: least, apart }: Told): string {
  if (tries === 0) return 'Nothing was answered.';
  const counted = `${right} of ${tries} right`;
  if (needed === null) return `${counted}: too few comparisons to say anything; guessing gets as many in ${percentText(byGuessing)} of tests.`;
  if (apart)
    return `Told apart: ${counted}, and who guesses gets as many in ${percentText(byGuessing)} of tests. The difference was truly heard in ${percentText(heard[1])} of comparisons (${percentText(heard[0])} to ${percentText(heard[2])}).`;
  const wrong = worseByGuessing <= LEVEL / 2 ? ` So few come by guessing in ${percentText(worseByGuessing)} of tests: perhaps it was heard, and named the wrong way round.` : '';
  const could = least === null ? '' : ` A difference heard in ${percentText(least)} of comparisons or more would have been found, four times of five.`;
  return `Cannot be told apart: ${counted}, and who guesses gets as many in ${percentText(byGuessing)} of tests; ${needed} would have been needed.${could}${wrong}`;
}

/**
 * What came of choices between two, as a sentence.
 * @param doubt `byChance`, held against that several were compared
 */
export function preferredText({ first, second, needed, leastShare, share }: Preferred, doubt: number, names: readonly [string, string]): string {
  const tries = first + second;
  if (tries === 0) return 'Nothing was chosen.';
  const [name, most] = first >= second ? [names[0], first] : [names[1], second];
  const counted = `${most} of ${tries} choices for ${name}`;
  if (needed === null) return `${counted}: too few to say anything.`;
  const [low, high] = first >= second ? share : [1 - share[1], 1 - share[0]];
  if (doubt <= LEVEL)
    return `${name} is preferred: ${counted} (${percentText(low)} to ${percentText(high)}). Without a preference they lie so far apart in ${percentText(doubt)} of tests.`;
  const could = leastShare === null ? '' : ` A preference that is there in ${percentText(leastShare)} of choices or more would have been found, four times of five.`;
  return `No preference is shown: ${first === second ? `${first} of ${tries} choices each` : counted}, and without one they lie so far apart in ${percentText(doubt)} of tests.${could}`;
}
