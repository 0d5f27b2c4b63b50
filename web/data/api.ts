import { PAGE_HEADER, RECORD_TAGS } from '@marvet/core/contract/events';
import { type BaseQueryFn, createApi, type FetchArgs, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import { KEPT_SINCE_HEADER } from '../offline/keptAddresses.ts';
import { answered, turnedAway } from './reach.ts';

/** An error as the server tells it, or as the page tells it when the server cannot be reached. */
export interface ApiTrouble {
  status: number;
  code: string;
  message: string;
  fields: Record<string, string>;
  /** The record as it is, where a change started from an older state of it. */
  current?: unknown;
}

/** Whether this is a page of the computer that the server runs on. Another device came in through the door, and knows of no terminal. */
export const AT_LAPTOP = globalThis.location?.protocol !== 'https:';
const UNREACHABLE = AT_LAPTOP
  ? 'The server cannot be reached. Start it with npm start; what you entered is still here.'
  : 'The laptop cannot be reached. What you entered is still here.';

/** Which page this is: it need not be told of its own changes. */
export const PAGE_ID = crypto.randomUUID();

const raw = fetchBaseQuery({ baseUrl: '/api', headers: { [PAGE_HEADER]: PAGE_ID } });

const query: BaseQueryFn<string | FetchArgs, unknown, ApiTrouble> = async (args, context, extra) => {
  const { data, error, meta } = await raw(args, context, extra);
  if (!error) {
    context.dispatch(answered({ keptSince: meta?.response?.headers.get(KEPT_SINCE_HEADER) ?? null }));
    return { data };
  }
  const told = (error.data as { error?: Partial<ApiTrouble> } | undefined)?.error;
  if (typeof error.status === 'number' && told) {
    if (error.status === 401) context.dispatch(turnedAway(told.message ?? 'This device was put out.'));
    return { error: { status: error.status, code: told.code ?? 'error', message: told.message ?? 'The server refused', fields: told.fields ?? {}, current: told.current } };
  }
  return { error: { status: 0, code: 'unreachable', message: UNREACHABLE, fields: {} } };
};

/** All that the page asks of the server. Endpoints stand in a file a resource; tags say what a change makes stale. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: query,
  tagTypes: RECORD_TAGS,
  endpoints: () => ({}),
});

/** The error of a query or mutation as text; null when there is none. */
export function troubleText(error: unknown): string | null {
  if (!error) return null;
  const message = (error as Partial<ApiTrouble>).message;
  return typeof message === 'string' ? message : 'Something went wrong in the page. Reload it; nothing that was saved is lost.';
}
