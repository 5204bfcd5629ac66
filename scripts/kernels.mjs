// Compiles core/kernels to WebAssembly and writes it where the core reads it, as text, so that no file has to be fetched. Run by
// `npm run kernels` after a change there; scripts/kernels.test.ts looks that what is kept is what the source gives.
import { readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import asc from 'assemblyscript/asc';

const FROM = join(dirname(fileURLToPath(import.meta.url)), '..', 'core', 'kernels');
export const TO = join(FROM, '..', 'src', 'strike', 'kernel-bytes.ts');

/** The compiled kernels, bytes; throws with the compiler's words where they do not compile. */
export async function compiled() {
  let binary;
  const { error, stderr } = await asc.main(
    [
      'index.ts',
      '--outFile',
      'kernels.wasm',
      '--runtime',
      'stub',
      '--enable',
      'simd',
      '-O3',
      '--converge',
      '--noAssert',
    ],
    {
      readFile: (name, base) => {
        try {
          return readFileSync(join(FROM, base && base !== '.' ? join(base, name) : name), 'utf8');
        } catch {
          return null;
        }
      },
      writeFile: (name, contents) => {
        if (name.endsWith('.wasm')) binary = contents;
      },
      listFiles: () => [],
    },
  );
  if (error || !binary) throw new Error(`${error?.message ?? 'nothing was compiled'}\n${stderr.toString()}`);
  return binary;
}

/** The module that holds them. */
export const asModule = bytes =>
  `// Compiled from core/kernels by \`npm run kernels\`: not written by hand.\nexport const KERNEL_BYTES =\n  '${Buffer.from(bytes).toString('base64')}';\n`;

if (process.argv[1] && import.meta.url === pathToFileURL(process.argv[1]).href) {
  const bytes = await compiled();
  writeFileSync(TO, asModule(bytes));
  console.log(`${bytes.length} bytes of kernels written to core/src/strike/kernel-bytes.ts`);
}
