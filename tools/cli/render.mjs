import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { exportPiece } from './backup.mjs';
import { ensureDebian, ensureNpm } from './install.mjs';
import { runTool } from './program.mjs';
import { takeOption } from './say.mjs';

export async function run(args) {
  const name = takeOption(args, '--piece');
  await ensureDebian({ '/usr/bin/ffmpeg': 'ffmpeg', '/usr/bin/ffprobe': 'ffmpeg' });
  await ensureNpm();
  const folder = name === undefined ? undefined : mkdtempSync(path.join(os.tmpdir(), 'maypole-render-'));
  try {
    const file = folder ? [await exportPiece(name, folder)] : [];
    const { status } = await runTool('render', [...file, ...args]);
    process.exitCode = status;
  } finally {
    if (folder) rmSync(folder, { recursive: true, force: true });
  }
}
