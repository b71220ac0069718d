/** @jest-environment node */
import type { AddressInfo } from 'node:net';
import { connect } from 'node:net';
import express from 'express';
import { secretsLane } from './secretsLane';

/** A server that answers a try after a while with the length of what it was sent. */
async function running() {
  const app = express();
  let [now, most] = [0, 0];
  app.use(secretsLane());
  app.post('/sign-in', (request, response) => {
    most = Math.max(most, ++now);
    let length = 0;
    request.on('data', (chunk: Buffer) => (length += chunk.length));
    request.on('end', () =>
      setTimeout(() => {
        now--;
        response.json({ length });
      }, 20),
    );
  });
  app.get('/', (_request, response) => void response.send('read'));
  const server = app.listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
  const { port } = server.address() as AddressInfo;
  return { at: `http://127.0.0.1:${port}`, port, most: () => most, close: () => server.close() };
}

const tryAt = (at: string, body: string) => fetch(`${at}/sign-in`, { method: 'POST', body });

test('many tries at once are answered two by two, each as it was sent; a reader goes past them', async () => {
  const { at, most, close } = await running();
  const order: string[] = [];
  const tries = Array.from({ length: 30 }, async (_, i) => {
    const answer = await tryAt(at, 'x'.repeat(1 + i * 5000));
    order.push('try');
    return (await answer.json()) as { length: number };
  });
  await new Promise((done) => setTimeout(done, 60));
  await (await fetch(at)).text();
  order.push('reader');
  expect((await Promise.all(tries)).map(({ length }) => length)).toEqual(
    tries.map((_, i) => 1 + i * 5000),
  );
  expect(most()).toBe(2);
  expect(order.indexOf('reader')).toBeLessThan(20);
  close();
});

test('who sends slowly or goes away keeps nobody waiting', async () => {
  const { at, port, close } = await running();
  const slow = Array.from({ length: 5 }, () => {
    const socket = connect(port, '127.0.0.1');
    socket.write('POST /sign-in HTTP/1.1\r\nHost: here\r\nContent-Length: 100\r\n\r\nhalf');
    return socket;
  });
  await new Promise((done) => setTimeout(done, 50));
  expect(await (await tryAt(at, 'abc')).json()).toEqual({ length: 3 });
  expect(await (await tryAt(at, '')).json()).toEqual({ length: 0 });
  for (const socket of slow) socket.destroy();
  expect(await (await tryAt(at, 'abcd')).json()).toEqual({ length: 4 });
  close();
});
