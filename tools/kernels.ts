/** Compiles the AssemblyScript sources and writes the result, as text, beside them: `npm run kernels`. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import asc from 'assemblyscript/asc';

const root = path.join(import.meta.dirname, '..');

/** Its maximum number of pages: see core/trace/memory/memory.ts. */
const SHARED = ['--sharedMemory', '--maximumMemory', '32768', '--enable', 'threads'];

/** Folders that contain an `assembly` folder, its entry file, the name of the result, and its memory. */
const MODULES = [
  { folder: 'core/kernels', entry: 'kernels.ts', name: 'KERNELS', memory: [] },
  { folder: 'core/trace', entry: 'trace.ts', name: 'TRACER', memory: SHARED },
] as const;

for (const { folder, entry, name, memory } of MODULES) {
  const from = path.join(root, folder, 'assembly');
  let binary: Uint8Array | undefined;
  const { error, stderr } = await asc.main(
    [
      entry,
      '--outFile',
      'out.wasm',
      '-O3',
      '--noAssert',
      '--runtime',
      'stub',
      '--enable',
      'simd',
      '--importMemory',
      '--initialMemory',
      '16',
      ...memory,
    ],
    {
      readFile: (file) => (existsSync(path.join(from, file)) ? readFileSync(path.join(from, file), 'utf8') : null),
      writeFile: (file, contents) => {
        if (file.endsWith('.wasm')) binary = contents as Uint8Array;
      },
      listFiles: () => [],
    },
  );
  if (error || !binary) throw new Error(`${folder}: ${error?.message ?? 'nothing was written'}\n${String(stderr)}`);
  const lines = Buffer.from(binary)
    .toString('base64')
    .match(/.{1,110}/g)!;
  writeFileSync(
    path.join(root, folder, 'wasm.ts'),
    `/** Made by \`npm run kernels\` from ${folder}/assembly; ${binary.length} bytes. */\nexport const ` +
      `${name} = [\n${lines.map((l) => `  '${l}',\n`).join('')}].join('');\n`,
  );
}
