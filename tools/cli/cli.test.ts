import net from 'node:net';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { ROOT } from './paths.mjs';
import { freePort, givenPort } from './ports.mjs';
import { endProcess, isAlive, runProgram, waitFor } from './processes.mjs';
import { Stop, takeFlag, takeOption } from './say.mjs';
import { failures } from './test.mjs';

describe('options', () => {
  it('are taken out of the list in both ways of writing', () => {
    const args = ['--port', '8080', 'x', '--json'];
    expect(takeOption(args, '--port')).toBe('8080');
    expect(takeFlag(args, '--json')).toBe(true);
    expect(args).toEqual(['x']);
    expect(takeOption(['--port=99'], '--port')).toBe('99');
    expect(takeOption(['x'], '--port')).toBeUndefined();
    expect(() => takeOption(['--port'], '--port')).toThrow('--port wants a value');
  });
});

describe('ports', () => {
  it('a preferred one is used if free, another if not', async () => {
    const server = net.createServer().listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    const { port } = server.address() as net.AddressInfo;
    const other = await freePort(port);
    expect(other).not.toBe(port);
    expect(other).toBeGreaterThan(0);
    await expect(givenPort(String(port))).rejects.toThrow(`Port ${port} is taken by another program`);
    await new Promise((resolve) => server.close(resolve));
    expect(await freePort(port)).toBe(port);
    expect(await givenPort(String(port))).toBe(port);
  });
  it.each(['0', '65536', '12.5', 'http', ''])('“%s” is no port', async (text) => {
    await expect(givenPort(text)).rejects.toThrow(Stop);
    await expect(givenPort(text)).rejects.toThrow('use a whole number from 1 to 65535');
  });
});

describe('programs', () => {
  it('give their status and output', async () => {
    const { status, output } = await runProgram(
      process.execPath,
      ['-e', 'console.log("out"); console.error("err"); process.exit(3)'],
      { capture: true },
    );
    expect(status).toBe(3);
    expect(output).toContain('out');
    expect(output).toContain('err');
    await expect(runProgram('/no/such/program', [], { capture: true })).rejects.toThrow('ENOENT');
  });
  it('that will not end are made to', async () => {
    const { spawn } = await import('node:child_process');
    const child = spawn(process.execPath, [
      '-e',
      'process.on("SIGTERM", () => {}); console.log("up"); setInterval(() => {}, 1000)',
    ]);
    await new Promise((resolve) => child.stdout.once('data', resolve));
    expect(isAlive(child.pid!)).toBe(true);
    await endProcess(child.pid, 'SIGTERM', 200);
    expect(await waitFor(() => child.signalCode === 'SIGKILL', 3000)).toBe(true);
  });
  it('waiting ends when its time is up', async () => expect(await waitFor(() => false, 30, 5)).toBe(false));
});

describe('what failed', () => {
  it('is told again at the end, by file, name and the first line of what was wrong', () => {
    const file = (name: string, rest: object) => ({
      name: path.join(ROOT, name),
      status: 'failed',
      message: '',
      ...rest,
    });
    const told = failures({
      testResults: [
        file('core/a.test.ts', {
          assertionResults: [
            { status: 'passed', fullName: 'a one' },
            {
              status: 'failed',
              fullName: 'a two',
              failureMessages: ['AssertionError: expected 1 to be 2\n    at a.test.ts'],
            },
          ],
        }),
        file('web/b.test.ts', { assertionResults: [], message: 'SyntaxError: no\nmore' }),
        file('web/c.test.ts', { status: 'passed', assertionResults: [{ status: 'passed', fullName: 'c' }] }),
      ],
    });
    expect(told).toEqual([
      'core/a.test.ts › a two: AssertionError: expected 1 to be 2',
      'web/b.test.ts: SyntaxError: no',
    ]);
    expect(failures(undefined)).toEqual([]);
  });
});
