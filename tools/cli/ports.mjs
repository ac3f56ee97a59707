import net from 'node:net';
import { Stop } from './say.mjs';

function tryPort(port) {
  return new Promise((resolve) => {
    const server = net.createServer();
    server.once('error', (error) => resolve({ error }));
    server.listen({ port, host: '127.0.0.1', exclusive: true }, () => {
      const { port: got } = server.address();
      server.close(() => resolve({ port: got }));
    });
  });
}

/** A free port; the preferred one if it is free. */
export async function freePort(preferred = 0) {
  const first = await tryPort(preferred);
  if (first.port) return first.port;
  return (await tryPort(0)).port;
}

/** A port the user asked for, or one clear sentence why not. */
export async function givenPort(text) {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535)
    throw new Stop(`“${text}” is not a port; use a whole number from 1 to 65535.`, 2);
  const { error } = await tryPort(port);
  if (error?.code === 'EADDRINUSE')
    throw new Stop(
      `Port ${port} is taken by another program; give another with --port, or leave it out to have a free one chosen.`,
    );
  if (error?.code === 'EACCES')
    throw new Stop(`Port ${port} may not be used by this user; give one above 1023 with --port.`);
  if (error) throw new Stop(`Port ${port} cannot be used: ${error.code}.`);
  return port;
}
