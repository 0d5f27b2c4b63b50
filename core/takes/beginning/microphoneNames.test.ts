import { describe, expect, it } from 'vitest';
import { recorderOf } from '../places/recorderOf.ts';
import { microphoneReadings, type NamedChannel } from './microphoneNames.ts';

/** Files as they come, by path; what stands after a bar are the names of their tracks. */
function channels(...files: string[]): NamedChannel[] {
  return files.flatMap((told) => {
    const [path = '', tracks] = told.split('|');
    const name = path.split('/').at(-1) as string;
    const folder = path.split('/').slice(0, -1).join('/') || null;
    const names = tracks === undefined ? [null] : tracks.split(',').map((track) => track || null);
    const recorder = recorderOf({ name, folder, originator: null });
    return names.map((trackName, channelIndex) => ({ fileId: path, channelIndex, fileName: name, recorder, trackName, of: names.length }));
  });
}

/** The take of a file is told by a number that its name ends with, as if listening had found it. */
const heardTogether = (fileId: string) => /(\d+)\.\w+$/.exec(fileId)?.[1] ?? fileId;
const inTurn = (fileId: string) => fileId;
const likeliest = (told: NamedChannel[], takeOf: (fileId: string) => string) => microphoneReadings(told, takeOf)[0];

describe('names of microphones', () => {
  it.each([
    ['a word and a number', ['lavA_1.wav', 'boom_1.wav', 'lavA_2.wav', 'boom_2.wav'], ['lavA', 'boom', 'lavA', 'boom']],
    ['the number first', ['1 lav.wav', '1 boom.wav', '2 lav.wav', '2 boom.wav'].map((name) => name), ['lav', 'boom', 'lav', 'boom']],
    ['numbered lavaliers', ['lav1_take1.wav', 'lav2_take1.wav', 'lav1_take2.wav', 'lav2_take2.wav'], ['lav1', 'lav2', 'lav1', 'lav2']],
    ['folders, machine names', ['Gull/REC_0001.wav', 'Tern/REC_0001.wav', 'Gull/REC_0002.wav', 'Tern/REC_0002.wav'], ['Gull, REC', 'Tern, REC', 'Gull, REC', 'Tern, REC']],
    ['tracks of poly files', ['S01T01.wav|Boom,Lav', 'S01T02.wav|Boom,Lav'], ['Boom', 'Lav', 'Boom', 'Lav']],
    ['scenes between', ['kitchen_lav_01.wav', 'kitchen_boom_01.wav', 'yard_lav_02.wav', 'yard_boom_02.wav'], ['lav', 'boom', 'lav', 'boom']],
  ])('%s', (_told, files, expected) => {
    const told = channels(...files);
    const takeOf = files[0]?.includes('1 lav') ? (fileId: string) => fileId.slice(0, 1) : heardTogether;
    expect(likeliest(told, takeOf)).toEqual(expected);
  });

  it('of files that were recorded in turn, too, as long as names come again', () => {
    const told = channels('lav 1.wav', 'lav 2.wav', 'boom 1.wav', 'boom 2.wav');
    expect(likeliest(told, inTurn)).toEqual(['lav', 'lav', 'boom', 'boom']);
  });

  it('one file a microphone where nothing comes again', () => {
    expect(likeliest(channels('wool.wav', 'tie.wav', 'collar.wav'), inTurn)).toEqual(['wool', 'tie', 'collar']);
  });

  it('one that is there already is known again', () => {
    const told = channels('lav A_5.wav', 'lav A_6.wav');
    expect(microphoneReadings(told, inTurn)[0]).toEqual(['lav A 5', 'lav A 6']);
    expect(microphoneReadings(told, inTurn, ['Boom', 'Lav A'])[0]).toEqual(['lav A', 'lav A']);
  });

  it('never one microphone twice in a take where names tell them apart', () => {
    const told = channels('a_x_1.wav', 'b_x_1.wav', 'a_x_2.wav', 'b_x_2.wav');
    const names = likeliest(told, heardTogether) as string[];
    expect(new Set(names.slice(0, 2)).size).toBe(2);
    expect(names.slice(0, 2)).toEqual(names.slice(2));
  });

  it('channels without names are counted after their file', () => {
    expect(likeliest(channels('zoom_1.wav|,', 'zoom_2.wav|,'), heardTogether)).toEqual(['zoom 1', 'zoom 2', 'zoom 1', 'zoom 2']);
  });

  it('offers the other ways of reading them, each once', () => {
    const readings = microphoneReadings(channels('kitchen_lav_1.wav', 'kitchen_boom_1.wav', 'yard_lav_2.wav', 'yard_boom_2.wav'), heardTogether);
    expect(readings.length).toBeGreaterThan(1);
    const partitions = readings.map((names) => names.map((name) => names.indexOf(name)).join());
    expect(new Set(partitions).size).toBe(readings.length);
  });
});
