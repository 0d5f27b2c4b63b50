// Compiles the kernels of core/audio/kernels/source and writes each as text that any runtime can load, beside the folder.
import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import asc from 'assemblyscript/asc';

const FOLDER = fileURLToPath(new URL('../core/audio/kernels/', import.meta.url));

export const KERNELS = readdirSync(join(FOLDER, 'source')).map((name) => name.replace(/\.ts$/, ''));

/** The file that a kernel is loaded from, as the compiler makes it of its source now. */
export async function compiledKernel(name) {
  let bytes = null;
  const keep = (_file, contents) => {
    bytes = contents;
  };
  const { error, stderr } = await asc.main([`source/${name}.ts`, '--baseDir', FOLDER, '--enable', 'simd', '--runtime', 'stub', '-O3', '--noAssert', '--outFile', `${name}.wasm`], {
    writeFile: keep,
  });
  if (error || bytes === null) throw new Error(`${name}: ${stderr.toString()}`);
  const text = Buffer.from(bytes).toString('base64');
  const lines = text.match(/.{1,160}/g).map((line) => `  '${line}',`);
  return `/** Compiled from source/${name}.ts by \`npm run kernels\`: not by hand. */\nexport const ${name.toUpperCase()}_WASM = [\n${lines.join('\n')}\n].join('');\n`;
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  for (const name of KERNELS) {
    writeFileSync(join(FOLDER, `${name}.wasm.ts`), await compiledKernel(name));
    console.log(`written: core/audio/kernels/${name}.wasm.ts`);
  }
}
