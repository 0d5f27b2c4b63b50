import { EntitySchema } from 'typeorm';
import { flag, flagOrNull, json, jsonOrNull, key, realOrNull, text, textOrNull, whole, wholeOrNull } from './columns.ts';
import type * as rows from './rows.ts';

export const MarkEntity = new EntitySchema<rows.MarkRow>({
  name: 'mark',
  columns: { chainId: key, criterionId: key, trialId: text, points: realOrNull, remark: text },
});

export const ItemEntity = new EntitySchema<rows.ItemRow>({
  name: 'item',
  columns: {
    id: key,
    kind: text,
    name: text,
    price: realOrNull,
    currency: text,
    weightG: realOrNull,
    pattern: textOrNull,
    selfNoiseDba: realOrNull,
    sensitivityMvPerPa: realOrNull,
    maxSplDb: realOrNull,
    inputMaxDbu: realOrNull,
    inputNoiseDbuA: realOrNull,
    gainMinDb: realOrNull,
    gainMaxDb: realOrNull,
    outputMaxDbu: realOrNull,
    inputConnector: textOrNull,
    outputConnector: textOrNull,
    wiring: text,
    powerNeeds: textOrNull,
    powerGives: textOrNull,
    balancedInput: flagOrNull,
    balancedOutput: flagOrNull,
    channels: whole,
    owned: wholeOrNull,
    sampleRatesHz: json,
    wordLengths: json,
    storageGb: realOrNull,
    frequencyLowHz: realOrNull,
    frequencyHighHz: realOrNull,
    switches: text,
    sizeMm: text,
    cable: text,
    moisture: text,
    address: textOrNull,
    inTheBox: text,
    warrantyMonths: realOrNull,
    adapterPrice: realOrNull,
    batteryType: text,
    batteryCount: whole,
    runningTimeH: realOrNull,
    remark: text,
    binnedAtMs: wholeOrNull,
  },
});

export const ChainEntity = new EntitySchema<rows.ChainRow>({
  name: 'chain',
  columns: {
    id: key,
    trialId: text,
    name: text,
    links: json,
    rig: json,
    split: jsonOrNull,
    candidate: flag,
    tape: json,
    remark: text,
    position: whole,
    binnedAtMs: wholeOrNull,
  },
});

export const PhotoEntity = new EntitySchema<rows.PhotoRow>({
  name: 'photo',
  columns: { id: key, ownerKind: text, ownerId: text, sha256: text, type: text, caption: text, addedAtMs: whole, binnedAtMs: wholeOrNull },
});

export const PreflightEntity = new EntitySchema<rows.PreflightRow>({
  name: 'preflight',
  columns: { trialId: key, key, person: text, atMs: whole },
});
