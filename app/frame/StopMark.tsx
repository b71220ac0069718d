/**
 * How far a stop on the road has come: done by its records, next, wanting attention, ahead, not
 * looked at, or overtaken by what was done or changed since.
 */
export type StopState = 'done' | 'next' | 'attention' | 'ahead' | 'unseen' | 'overtaken';

/**
 * How a stop is marked: filled when done, ringed when next, a wedge when it wants attention, a shut
 * eye when nobody looked, a mark passed by an arrow when overtaken. Never by colour alone.
 */
export function StopMark({ state }: { state: StopState }) {
  return (
    <svg width="20" height="20" viewBox="0 0 20 20" aria-hidden>
      {state === 'done' && (
        <>
          <circle cx="10" cy="10" r="8" fill="var(--good)" />
          <path d="M5.8 10.4l3 3 5.4-6" fill="none" stroke="var(--panel)" strokeWidth="2.2" />
        </>
      )}
      {state === 'next' && (
        <>
          <circle
            cx="10"
            cy="10"
            r="7.6"
            fill="var(--chalk)"
            stroke="var(--torch)"
            strokeWidth="2.6"
          />
          <path d="M8 6.2l5 3.8-5 3.8z" fill="var(--torch)" />
        </>
      )}
      {state === 'attention' && (
        <>
          <path d="M10 1.5l8.8 16H1.2z" fill="var(--torch)" />
          <path d="M10 7v5.4M10 14v1.8" stroke="var(--panel)" strokeWidth="2" />
        </>
      )}
      {state === 'unseen' && (
        <path
          d="M3 9.5q7 6.5 14 0M5.2 12.2l-1.6 2M10 13.6v2.6M14.8 12.2l1.6 2"
          fill="none"
          stroke="var(--pencil)"
          strokeWidth="1.6"
          strokeLinecap="round"
        />
      )}
      {state === 'overtaken' && (
        <>
          <circle cx="7.6" cy="11.6" r="5.6" fill="none" stroke="var(--pencil)" strokeWidth="1.8" />
          <path
            d="M4 4.6h12M12.4 1.4l3.8 3.2-3.8 3.2"
            fill="none"
            stroke="var(--pencil)"
            strokeWidth="1.8"
          />
        </>
      )}
      {state === 'ahead' && (
        <circle
          cx="10"
          cy="10"
          r="7.6"
          fill="none"
          stroke="var(--pencil)"
          strokeWidth="1.4"
          strokeDasharray="2.6 2.2"
        />
      )}
    </svg>
  );
}
