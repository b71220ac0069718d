import Button from '@mui/material/Button';
import { Told } from '../frame/Told';
import type { SelfSaved } from './useSelfSavedDraft';

/** What became of what saves itself: nothing is said while all is well. */
export function SelfSavedWord({ kept, refusal, state, drop, send }: Pick<SelfSaved<object>, 'kept' | 'refusal' | 'state' | 'drop' | 'send'>) {
  if (refusal)
    return (
      <Told>
        {refusal.message}{' '}
        <Button size="small" onClick={() => void send()}>
          Keep mine
        </Button>
        <Button size="small" color="inherit" onClick={() => drop()}>
          Take what is there
        </Button>
      </Told>
    );
  if (kept && state === 'failed') return <Told>The server does not answer: what you said is kept in this browser and goes up later.</Told>;
  return null;
} // prettier-ignore
