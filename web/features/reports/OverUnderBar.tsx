/** Underbilled to the left, overbilled to the right of one line. */
export function OverUnderBar({ over, under, widest }: { over: number; under: number; widest: number }) {
  const half = 36;
  return (
    <svg width="76" height="12" viewBox="0 0 76 12" aria-hidden="true" className="block">
      {under > 0 && (
        <rect
          x={38 - (under / widest) * half}
          y="2"
          width={(under / widest) * half}
          height="8"
          fill="none"
          stroke="var(--under)"
          strokeWidth="1.4"
        />
      )}
      {over > 0 && <rect x="38" y="2" width={(over / widest) * half} height="8" fill="var(--over)" />}
      <line x1="38" x2="38" y1="0" y2="12" stroke="var(--rule)" />
    </svg>
  );
}
