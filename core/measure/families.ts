import { Activity } from './activity.ts';
import { Character } from './character.ts';
import { Events } from './events/events.ts';
import type { ChannelContext } from './family.ts';
import { Intelligibility } from './intelligibility.ts';
import { Levels } from './levels.ts';
import { Loudness } from './loudness.ts';
import { Noise } from './noise.ts';
import { Spectrum } from './spectrum.ts';

/**
 * Every measure family, by the name of its group in the report, in the order in which they finish:
 * each may use what those above it found.
 */
export const openFamilies = (context: ChannelContext) => ({
  levels: new Levels(context),
  loudness: new Loudness(context),
  activity: new Activity(context),
  noise: new Noise(context),
  spectrum: new Spectrum(context),
  intelligibility: new Intelligibility(),
  character: new Character(),
  events: new Events(context),
});

export type Families = ReturnType<typeof openFamilies>;
