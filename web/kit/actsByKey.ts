/**
 * The one rule for acts by key. After an act, the key does nothing until somebody has typed, chosen or pressed something, so that a
 * key pressed twice never does what comes next. A grave act, one in another's name or one that moves money, is done by key only out of
 * a form in which something was typed or chosen since the last act.
 */

/** What marks a form, or another part of a page, whose act is grave. */
const GRAVE = '[data-grave]';

let [done, touched]: [done: boolean, touched: Element | null] = [false, null];
/** What was touched before the last act. */
let before: Element | null = null;

const HANDS = ['input', 'change', 'pointerdown'] as const;
const MOVES = new Set(['Tab', 'ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'Home', 'End', ' ']);

function noteHands({ target }: Event): void {
  done = false;
  touched = target instanceof Element ? target : null;
}

function noteMove({ key, altKey }: KeyboardEvent): void {
  if (altKey || !(MOVES.has(key) || key.length === 1)) return;
  done = false;
  // Where a key moves the focus, it is there after the event.
  setTimeout(() => (touched = document.activeElement));
}

/** Listens to what is done by hand; called once, where keys are set up. Gives back how to stop. */
export function watchHands(): () => void {
  for (const kind of HANDS) document.addEventListener(kind, noteHands, true);
  document.addEventListener('keydown', noteMove, true);
  return () => {
    for (const kind of HANDS) document.removeEventListener(kind, noteHands, true);
    document.removeEventListener('keydown', noteMove, true);
  };
}

/** Does an act that a key asks for, unless one was done since anything was typed, chosen or pressed. `at`: the button it stands for. */
export function actByKey(act: () => unknown, at: Element | null = null): void {
  const grave = at?.closest(GRAVE) ?? null;
  if (done || (grave !== null && !(touched !== null && grave.contains(touched)))) return;
  [done, touched, before] = [true, null, touched];
  void act();
}

/** The act was refused, or no reply came: the key may ask for it again, for nothing else has taken its place. */
export function actFailed(): void {
  if (done) [done, touched] = [false, before];
}
