import { useEffect, useState } from 'react';

/**
 * Whether a picture cannot be had. Asked for once more after the page has come to life: an image
 * that failed before that told nobody.
 */
export function useGone(src: string): boolean {
  const [gone, setGone] = useState<string | null>(null);
  useEffect(() => {
    const probe = new Image();
    probe.onerror = () => setGone(src);
    probe.src = src;
    return () => {
      probe.onerror = null;
    };
  }, [src]);
  return gone === src;
}
