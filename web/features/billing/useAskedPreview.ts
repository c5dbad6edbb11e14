import { useEffect, useRef } from 'react';

/** How long nothing is typed before it is worked out. */
const PAUSE = 250;

/**
 * Asks what an act would post, a moment after what is typed has changed; `onPreview` is told, or told null where there is nothing to ask
 * (`args` null), or it is refused: why is said when the act is done.
 */
export function useAskedPreview<Args, Preview>(
  ask: (args: Args) => { unwrap(): Promise<Preview> },
  args: Args | null,
  onPreview: (preview: Preview | null) => void,
): void {
  const asked = JSON.stringify(args);
  const latest = useRef({ ask, onPreview });
  latest.current = { ask, onPreview };
  useEffect(() => {
    let current = true;
    const look = async () => {
      const of = JSON.parse(asked) as Args | null;
      const shown = of
        ? await latest.current
            .ask(of)
            .unwrap()
            .catch(() => null)
        : null;
      if (current) latest.current.onPreview(shown);
    };
    const timer = setTimeout(() => void look(), PAUSE);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [asked]);
}
