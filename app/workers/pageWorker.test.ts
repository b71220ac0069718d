import { hearing } from './pageWorker';

/** A worker that says what a test has it say. */
function silent(): Worker & { terminated: number } {
  const worker = { terminated: 0, terminate: () => void worker.terminated++ };
  return worker as unknown as Worker & { terminated: number };
}

test('each answer is heard; a worker that comes to nothing is told once, ended, and heard no more', () => {
  for (const fault of ['onerror', 'onmessageerror'] as const) {
    const worker = silent();
    const heard: unknown[] = [];
    hearing<number>(
      worker,
      (answer) => heard.push(answer),
      () => heard.push('failed'),
    );
    const say = (data: number) => worker.onmessage!({ data } as MessageEvent);
    say(1);
    say(2);
    worker[fault]!({} as never);
    worker[fault]!({} as never);
    say(3);
    expect(heard).toEqual([1, 2, 'failed']);
    expect(worker.terminated).toBeGreaterThan(0);
  }
});
