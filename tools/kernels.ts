/** Compiles core/kernels/assembly with AssemblyScript and writes the result, as text, to core/kernels/wasm.ts: `npm run kernels`. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import asc from 'assemblyscript/asc';

const root = path.join(import.meta.dirname, '..');
const folder = path.join(root, 'core/kernels/assembly');
let binary: Uint8Array | undefined;
const { error, stderr } = await asc.main(
  [
    'kernels.ts',
    '--outFile',
    'kernels.wasm',
    '-O3',
    '--noAssert',
    '--runtime',
    'stub',
    '--enable',
    'simd',
    '--importMemory',
    '--initialMemory',
    '16',
  ],
  {
    readFile: (name) => (existsSync(path.join(folder, name)) ? readFileSync(path.join(folder, name), 'utf8') : null),
    writeFile: (name, contents) => {
      if (name.endsWith('.wasm')) binary = contents as Uint8Array;
    },
    listFiles: () => [],
  },
);
if (error || !binary) throw new Error(`${error?.message ?? 'nothing was written'}\n${String(stderr)}`);
const lines = Buffer.from(binary)
  .toString('base64')
  .match(/.{1,160}/g)!;
writeFileSync(
  path.join(root, 'core/kernels/wasm.ts'),
  `/** Made by \`npm run kernels\` from core/kernels/assembly; ${binary.length} bytes. */\nexport const KERNELS =\n${lines.map((l) => `  '${l}'`).join(' +\n')};\n`,
);
