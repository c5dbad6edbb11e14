import { useLayoutEffect, useState, type RefObject } from 'react';

/** What a line of text under the box needs. */
const LINE = 42;
const LEAST = 220;

/** How high a box may be so that it ends where the window does, with the line of text under it in sight; undefined until it stands. */
export function useRoomBelow(box: RefObject<HTMLElement | null>, asked: boolean): number | undefined {
  const [room, setRoom] = useState<number>();
  // After every render: what stands above may have changed its height.
  useLayoutEffect(() => {
    if (!asked) return;
    const measure = () => {
      if (!box.current) return;
      const top = box.current.getBoundingClientRect().top + window.scrollY;
      const below = box.current.nextElementSibling ? LINE : 0;
      const next = Math.max(LEAST, Math.floor(window.innerHeight - top - below - 6));
      // Set to the same again, it would render again all the same, and measure again.
      if (next !== room) setRoom(next);
    };
    measure();
    window.addEventListener('resize', measure);
    return () => window.removeEventListener('resize', measure);
  });
  return room;
}
