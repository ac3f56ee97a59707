import net from 'node:net';
import { describe, expect, it } from 'vitest';
import { freePort, givenPort } from './ports.mjs';
import { endProcess, isAlive, runProgram, waitFor } from './processes.mjs';
import { Stop, takeFlag, takeOption } from './say.mjs';

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
