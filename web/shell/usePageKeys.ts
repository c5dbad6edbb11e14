import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { actByKey, watchHands } from '../kit/actsByKey';

/** The keys of every page: its main act, the document before and after, the part of the job before and after. */
export function usePageKeys(): void {
  useEffect(watchHands, []);
  useHotkeys(
    'alt+enter',
    (event) => {
      if (document.querySelector('[role="dialog"], [data-own-keys]')) return;
      event.preventDefault();
      const button = mainAct(event.target as Element | null);
      if (button) actByKey(() => button.click(), button);
    },
    { enableOnFormTags: true },
  );
  useHotkeys('n', () => follow('main a[rel="next"]'));
  useHotkeys('p', () => follow('main a[rel="prev"]'));
  useHotkeys('j', () => partBeside(1));
  useHotkeys('k', () => partBeside(-1));
}

/** The main button of the form that is typed in, else the first one of the page. */
function mainAct(at: Element | null): HTMLElement | null {
  const MAIN = '.button.main:not(:disabled)';
  return at?.closest('form')?.querySelector<HTMLElement>(MAIN) ?? document.querySelector<HTMLElement>(`main ${MAIN}`);
}

function follow(link: string): void {
  document.querySelector<HTMLElement>(link)?.click();
}

/** Goes to the part of the job after, or before, the one that is shown. */
function partBeside(step: number): void {
  const links = [...document.querySelectorAll<HTMLElement>('nav[aria-label="Parts of the job"] a')];
  const current = links.findIndex((it) => it.getAttribute('aria-current') === 'page');
  links[current + step]?.click();
}
