/** @jest-environment node */
import type { AddressInfo } from 'node:net';
import { connect } from 'node:net';
import express from 'express';
import { secretsLane } from './secretsLane';

/** A server that answers tries, once it may, with the length of what it was sent. */
async function running() {
  const app = express();
  let [now, most] = [0, 0];
  let release = () => {};
  const released = new Promise<void>((done) => (release = done));
  app.use(secretsLane());
  app.post('/sign-in', (request, response) => {
    most = Math.max(most, ++now);
    let length = 0;
    request.on('data', (chunk: Buffer) => (length += chunk.length));
    request.on('end', () => {
      void released.then(() => {
        now--;
        response.json({ length });
      });
    });
  });
  app.get('/', (_request, response) => void response.send('read'));
  const server = app.listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
  const { port } = server.address() as AddressInfo;
  return {
    ...{ at: `http://127.0.0.1:${port}`, port, release },
    most: () => most,
    close: () => server.close(),
  };
}

const tryAt = (at: string, body: string) => fetch(`${at}/sign-in`, { method: 'POST', body });
const until = async (done: () => boolean) => {
  while (!done()) await new Promise((next) => setTimeout(next, 5));
};

test('many tries at once are answered two by two, each as it was sent; a reader goes past them', async () => {
  const { at, most, release, close } = await running();
  let answered = 0;
  const tries = Array.from({ length: 30 }, async (_, i) => {
    const answer = await tryAt(at, 'x'.repeat(1 + i * 5000));
    answered++;
    return (await answer.json()) as { length: number };
  });
  await until(() => most() === 2);
  expect(await (await fetch(at)).text()).toBe('read');
  expect(answered).toBe(0);
  release();
  expect((await Promise.all(tries)).map(({ length }) => length)).toEqual(
    tries.map((_, i) => 1 + i * 5000),
  );
  expect(most()).toBe(2);
  close();
});

test('of many more than can wait, however much at once they come, the rest are told to try again', async () => {
  const { at, most, release, close } = await running();
  const tries = Array.from({ length: 260 }, async () => {
    const answer = await tryAt(at, 'x');
    await answer.text();
    return answer.status;
  });
  let told = 0;
  for (const one of tries) void one.then((status) => (told += Number(status === 503)));
  await until(() => told === 58);
  release();
  const statuses = await Promise.all(tries);
  expect(statuses.filter((status) => status === 200)).toHaveLength(202);
  expect(most()).toBe(2);
  close();
});

test('who sends slowly or goes away keeps nobody waiting', async () => {
  const { at, port, release, close } = await running();
  release();
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
