import { Told } from '../frame/Told';
import { useHeldWord } from './browserStore';
import { Refused } from './Refused';
import type { SelfSaved } from './useSelfSavedDraft';

/** What became of what saves itself: nothing is said while all is well. */
export function SelfSavedWord({
  kept,
  refusal,
  state,
  drop,
  send,
}: Pick<SelfSaved<object>, 'kept' | 'refusal' | 'state' | 'drop' | 'send'>) {
  const held = useHeldWord();
  if (refusal)
    return <Refused message={refusal.message} onMine={() => void send()} onTheirs={() => drop()} />;
  if (kept && state === 'failed')
    return <Told>The server does not answer: what you said is {held} and goes up later.</Told>;
  return null;
}
