import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { Told } from '../frame/Told';
import type { Progress } from '../workers/task';
import type { TakenIn } from './takeInFile';

type State =
  { kind: 'idle' } | { kind: 'busy'; share: number | null } | { kind: 'refused'; why: string };

/** The lines of an answer as they come. */
async function* linesOf(answer: Response): AsyncGenerator<Progress | TakenIn> {
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
  let held = '';
  for (let next = await reader.read(); !next.done; next = await reader.read()) {
    const lines = (held + next.value).split('\n');
    held = lines.pop()!;
    for (const line of lines) yield JSON.parse(line) as Progress | TakenIn;
  }
}

/** Takes a job file in, tells how far it has come, and can be stopped. */
export function TakeIn() {
  const chooser = useRef<HTMLInputElement>(null);
  const stopping = useRef<AbortController | null>(null);
  const [state, setState] = useState<State>({ kind: 'idle' });
  const navigate = useNavigate();
  const take = async (file: File) => {
    setState({ kind: 'busy', share: null });
    const controller = (stopping.current = new AbortController());
    const body = new FormData();
    body.append('file', file);
    try {
      const headers = { Accept: 'application/x-ndjson' };
      const answer = await fetch('/take-in', {
        method: 'POST',
        headers,
        body,
        signal: controller.signal,
      });
      if (!answer.ok) {
        const { message } = (await answer.json().catch(() => ({}))) as { message?: string };
        return setState({ kind: 'refused', why: message ?? 'The server could not take it.' });
      }
      for await (const line of linesOf(answer)) {
        if ('to' in line) return await navigate(line.to);
        if ('refused' in line) return setState({ kind: 'refused', why: line.refused });
        setState({ kind: 'busy', share: line.of > 0 ? line.done / line.of : null });
      }
      throw new TypeError('It ended in the middle');
    } catch {
      const stopped = controller.signal.aborted;
      setState(
        stopped
          ? { kind: 'idle' }
          : { kind: 'refused', why: 'No answer from the server: try again.' },
      );
    }
  };
  return (
    <>
      <input
        ref={chooser}
        type="file"
        accept="application/json,application/zip,.json,.zip"
        aria-label="Job file to take in"
        tabIndex={-1}
        className="visually-hidden"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) void take(file);
        }}
      />
      <Button
        color="inherit"
        disabled={state.kind === 'busy'}
        onClick={() => {
          // The same file, mended, can be chosen again.
          chooser.current!.value = '';
          chooser.current!.click();
        }}
      >
        Take in a job file
      </Button>
      {state.kind === 'busy' && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, flex: 1, minWidth: 260 }}>
          <LinearProgress
            aria-label="How far the file has been taken in"
            variant={state.share === null ? 'indeterminate' : 'determinate'}
            value={(state.share ?? 0) * 100}
            sx={{ flex: 1, height: 10 }}
          />
          <Button color="inherit" onClick={() => stopping.current?.abort()}>
            Stop
          </Button>
        </Box>
      )}
      {state.kind === 'refused' && (
        <Box sx={{ flexBasis: '100%' }}>
          <Told>{state.why} Nothing was taken in.</Told>
        </Box>
      )}
    </>
  );
}
