import { useCallback } from 'react';
import { troubleText } from '../data/api.ts';
import { useNotice } from './notices.tsx';

/** Tells in a corner why something asked of the server by a plain button was refused. */
export function useTold(): <Result extends { error?: unknown }>(asked: Promise<Result>) => Promise<Result> {
  const tell = useNotice();
  return useCallback(
    async (asked) => {
      const result = await asked;
      if (result.error) tell(troubleText(result.error) ?? '');
      return result;
    },
    [tell],
  );
}
