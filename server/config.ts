import { resolve } from 'node:path';
import { z } from 'zod';

/** How the server is set up, from the environment. */
export interface Config {
  port: number;
  dataFolder: string;
}

const environmentSchema = z.object({
  PORT: z.coerce
    .number({ error: 'PORT must be a number' })
    .int('PORT must be a whole number')
    .min(0, 'PORT must be 0 to 65535')
    .max(65_535, 'PORT must be 0 to 65535')
    .default(4810),
  MARVET_DATA: z.string().min(1).default('./data'),
});

/** @throws Error with one line that names the variable, the reason and the remedy */
export function readConfig(environment: Record<string, string | undefined>): Config {
  const parsed = environmentSchema.safeParse({ PORT: environment.PORT || undefined, MARVET_DATA: environment.MARVET_DATA || undefined });
  if (!parsed.success) throw new Error(parsed.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('; '));
  return { port: parsed.data.PORT, dataFolder: resolve(parsed.data.MARVET_DATA) };
}
