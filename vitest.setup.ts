import fc from 'fast-check';

// The same cases in every run: what failed can be run again as it was, and a change is judged by itself. Other cases come with
// another number: MARVET_CASES=7 npx vitest run
fc.configureGlobal({ seed: Number(process.env.MARVET_CASES ?? 1), reporter: shortly });

/** Cases may be minutes of samples: of a failure its reason is told and the number under which it comes again, not every sample. */
function shortly<Value>(details: fc.RunDetails<Value>): void {
  if (!details.failed) return;
  const { seed, counterexamplePath, numRuns, errorInstance, counterexample } = details;
  const text = fc.stringify(counterexample);
  const reason = errorInstance instanceof Error ? errorInstance.message : String(errorInstance);
  throw new Error(
    `Property failed after ${numRuns} tests (seed ${seed}, path ${counterexamplePath}): ${reason}\nCounterexample: ${text.slice(0, 2000)}${text.length > 2000 ? '...' : ''}`,
  );
}
