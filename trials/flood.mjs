/**
 * Asks as fast as it can: `flood.mjs ADDRESS FROM COUNT` keeps so many requests under way from an address of its own
 * until it is told to end. Sends a message when the first is turned away, and at the end one with how many were.
 */
import http from 'node:http';

const [address, from, count] = process.argv.slice(2);
const { hostname, port } = new URL(address);
let refused = 0;

function ask() {
  const again = (after) => setTimeout(ask, after);
  const request = http.request(
    { hostname, port, path: '/api/health', localAddress: from, agent: false },
    (response) => {
      response.resume();
      const away = response.statusCode === 429;
      if (away && ++refused === 1) process.send(1);
      response.on('close', () => again(away ? 50 : 0));
    },
  );
  request.on('error', () => again(50));
  request.end();
}

for (let i = 0; i < Number(count); i++) ask();
process.on('message', () => process.send(refused, () => process.exit()));
process.on('disconnect', () => process.exit());
