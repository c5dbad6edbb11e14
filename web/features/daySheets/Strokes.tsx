/** A signature as it was written. */
export function Strokes({ strokes, words }: { strokes: string; words: string }) {
  return (
    <svg viewBox="0 0 1000 400" role="img" aria-label={words} className="w-full max-w-[260px]">
      {strokes.split(';').map((it, i) => (
        <polyline key={i} points={it} fill="none" stroke="currentColor" strokeWidth={6} strokeLinecap="round" />
      ))}
    </svg>
  );
}
