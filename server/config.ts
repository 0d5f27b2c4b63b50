import { resolve } from 'node:path';
import { z } from 'zod';

/** How the server is set up, from the environment. */
export interface Config {
  port: number;
  dataFolder: string;
  /** Port of the door for other devices. */
  doorPort: number;
  /** An address at which the door may be opened, beside those of the machine's networks; null is none. */
  doorAddress: string | null;
}

const port = (name: string) =>
  z.coerce
    .number({ error: `${name} must be a number` })
    .int(`${name} must be a whole number`)
    .min(0, `${name} must be 0 to 65535`)
    .max(65_535, `${name} must be 0 to 65535`);

const environmentSchema = z.object({
  PORT: port('PORT').default(4810),
  MARVET_DATA: z.string().min(1).default('./data'),
  DOOR_PORT: port('DOOR_PORT').default(4811),
  DOOR_ADDRESS: z.ipv4('DOOR_ADDRESS must be an address such as 192.168.0.20').nullable().default(null),
});

const NAMES = Object.keys(environmentSchema.shape);

/** @throws Error with one line that names the variable, the reason and the remedy */
export function readConfig(environment: Record<string, string | undefined>): Config {
  const parsed = environmentSchema.safeParse(Object.fromEntries(NAMES.map((name) => [name, environment[name] || undefined])));
  if (!parsed.success) throw new Error(parsed.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('; '));
  const { PORT, MARVET_DATA, DOOR_PORT, DOOR_ADDRESS } = parsed.data;
  return { port: PORT, dataFolder: resolve(MARVET_DATA), doorPort: DOOR_PORT, doorAddress: DOOR_ADDRESS };
}
