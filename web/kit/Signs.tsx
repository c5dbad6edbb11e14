/** The states that must be seen, each with one shape and one word, the same everywhere. */
export const SIGNS = {
  over: { word: 'overbilled', colour: 'var(--over)', shape: <path d="M5 1 9 9H1Z" fill="currentColor" /> },
  under: {
    word: 'underbilled',
    colour: 'var(--under)',
    shape: <path d="M1 1h8L5 9Z" fill="none" stroke="currentColor" strokeWidth="1.5" />,
  },
  loss: { word: 'loss', colour: 'var(--loss)', shape: <path d="M1.5 1.5l7 7m0-7l-7 7" stroke="currentColor" strokeWidth="2" /> },
  held: {
    word: 'held',
    colour: 'var(--held)',
    shape: <path d="M2 1h6v8H2Z" fill="none" stroke="currentColor" strokeWidth="1.5" />,
  },
  pending: {
    word: 'not agreed yet',
    colour: 'var(--held)',
    shape: (
      <path d="M1 5a4 4 0 1 0 8 0a4 4 0 1 0-8 0" fill="none" stroke="currentColor" strokeWidth="1.5" strokeDasharray="1.8 1.35" />
    ),
  },
  overdue: {
    word: 'overdue',
    colour: 'var(--loss)',
    shape: <path d="M5 1a4 4 0 1 0 .01 0M5 3v2.4l1.6 1" fill="none" stroke="currentColor" strokeWidth="1.4" />,
  },
  overrun: {
    word: 'over budget',
    colour: 'var(--loss)',
    shape: <path d="M1 5 5 1l4 4M1 9l4-4 4 4" fill="none" stroke="currentColor" strokeWidth="1.5" />,
  },
  unbudgeted: {
    word: 'no budget',
    colour: 'var(--over)',
    shape: <path d="M1 5h8" stroke="currentColor" strokeWidth="2" strokeDasharray="2 1.2" />,
  },
} as const;
export type SignName = keyof typeof SIGNS;

export function Sign({ name, bare = false }: { name: SignName; bare?: boolean }) {
  const { word, colour, shape } = SIGNS[name];
  return (
    <span style={{ color: colour }} className="inline-flex items-center gap-1 whitespace-nowrap text-[12.5px]" title={word}>
      <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden="true">
        {shape}
      </svg>
      <span className={bare ? 'sr-only' : ''}>{word}</span>
    </span>
  );
}

/** Says what the signs mean, where they first appear. */
export function Legend({ names }: { names: readonly SignName[] }) {
  return (
    <span className="inline-flex flex-wrap gap-x-3 gap-y-1">
      {names.map((name) => (
        <Sign key={name} name={name} />
      ))}
    </span>
  );
}
