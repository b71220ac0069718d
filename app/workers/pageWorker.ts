import { useEffect, useRef } from 'react';

/**
 * Hears a web worker of the page: each of its answers, and once that it came to nothing (its script
 * could not be had, it threw, its answer could not be read); it is ended then.
 */
export function hearing<Answer>(
  worker: Worker,
  answered: (answer: Answer) => void,
  failed: () => void,
): Worker {
  let over = false;
  const end = () => {
    worker.terminate();
    if (!over) failed();
    over = true;
  };
  worker.onmessage = ({ data }: MessageEvent<Answer>) => {
    if (!over) answered(data);
  };
  worker.onerror = end;
  worker.onmessageerror = end;
  return worker;
}

/**
 * A web worker for each thing that is asked, given up when something else is asked or the page goes;
 * none for null. `asked` is what is posted: the same object is the same question. `make` begins the
 * worker; `answered` and `failed` are given the question they are about.
 */
export function usePageWorker<Asked, Answer>(
  make: () => Worker,
  asked: Asked | null,
  answered: (answer: Answer, asked: Asked) => void,
  failed: (asked: Asked) => void,
): void {
  const latest = useRef({ make, answered, failed });
  useEffect(() => {
    latest.current = { make, answered, failed };
  });
  useEffect(() => {
    if (asked === null) return;
    const worker = hearing<Answer>(
      latest.current.make(),
      (answer) => latest.current.answered(answer, asked),
      () => latest.current.failed(asked),
    );
    worker.postMessage(asked);
    return () => worker.terminate();
  }, [asked]);
}
