import type { DoorState, WhoAmI } from '@marvet/core/contract/door';
import type { GuestRole } from '@marvet/core/domain/guest';
import { api } from './api.ts';

/** What a code is to open the door for. */
export interface GrantAsked {
  trialId: string;
  role: GuestRole;
  listenerId: string | null;
}

export const doorApi = api.injectEndpoints({
  endpoints: (build) => ({
    whoAmI: build.query<WhoAmI, void>({ query: () => 'door/me' }),
    door: build.query<DoorState, void>({ query: () => 'door', providesTags: ['Door'] }),
    openDoor: build.mutation<DoorState, { address: string; days: number }>({ query: (body) => ({ url: 'door/open', method: 'POST', body }), invalidatesTags: ['Door'] }),
    closeDoor: build.mutation<DoorState, void>({ query: () => ({ url: 'door/close', method: 'POST' }), invalidatesTags: ['Door'] }),
    giveCode: build.mutation<DoorState, GrantAsked>({ query: (body) => ({ url: 'door/code', method: 'POST', body }), invalidatesTags: ['Door'] }),
    withdrawCode: build.mutation<DoorState, void>({ query: () => ({ url: 'door/code', method: 'DELETE' }), invalidatesTags: ['Door'] }),
    putOut: build.mutation<DoorState, string>({ query: (id) => ({ url: `door/guests/${id}`, method: 'DELETE' }), invalidatesTags: ['Door'] }),
  }),
});

export const { useWhoAmIQuery, useDoorQuery, useOpenDoorMutation, useCloseDoorMutation, useGiveCodeMutation, useWithdrawCodeMutation, usePutOutMutation } = doorApi;
