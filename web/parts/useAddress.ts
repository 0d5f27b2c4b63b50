import { useCallback } from 'react';
import { useSearchParams } from 'react-router';

/** Values of the address by name; null takes one out. */
export type AddressChange = Record<string, string | null>;

/**
 * The search part of the address, and how to change some of it. A change starts from the address as it
 * is now, not as it was last drawn, so that two changes in quick succession both stay.
 */
export function useAddress(): [URLSearchParams, (change: AddressChange) => void] {
  const [search, setSearch] = useSearchParams();
  const change = useCallback(
    (values: AddressChange) => {
      const params = new URLSearchParams(window.location.search);
      for (const [name, value] of Object.entries(values)) {
        if (value) params.set(name, value);
        else params.delete(name);
      }
      setSearch(params, { replace: true });
    },
    [setSearch],
  );
  return [search, change];
}
