import { useCallback, useEffect, useRef, useState } from 'react';

/** A picture that was chosen, and where it can be shown from. */
export type Chosen = { file: File; url: string };

/** The picture that is chosen at the moment, to be shown as it is; let go with the page. */
export function usePicked(): [Chosen | null, (file: File) => void] {
  const [picked, setPicked] = useState<Chosen | null>(null);
  const shown = useRef<string | null>(null);
  const letGo = () => {
    if (shown.current) URL.revokeObjectURL(shown.current);
    shown.current = null;
  };
  useEffect(() => letGo, []);
  const pick = useCallback((file: File) => {
    letGo();
    shown.current = URL.createObjectURL(file);
    setPicked({ file, url: shown.current });
  }, []);
  return [picked, pick];
}
