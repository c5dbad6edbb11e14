import { expect, test, type Page } from '@playwright/test';
import { present } from '../core/errors/known';
import { startLedrin, type Running } from './server';

let running: Running;
test.beforeAll(async () => {
  running = await startLedrin('demo/book');
});
test.afterAll(() => running.stop());

const VIEWS = [
  ...['/jobs', '/jobs/2108', '/jobs/2108/budget', '/jobs/2108/changes', '/jobs/2104/billing/14', '/jobs/2105/billing/12'],
  ...[
    '/costs',
    '/costs/ledger',
    '/costs/correct?way=move&entries=1,2',
    '/billing',
    '/reports/work-in-progress',
    '/reports/ageing',
  ],
  ...[
    '/ledger/postings/172',
    '/tenders',
    '/tenders/prices',
    '/jobs/2117/estimates/1',
    '/set-up',
    '/set-up/vendors',
    '/jobs/new',
    '/waiting',
    '/account',
  ],
];

/** What can be pressed or typed in; one of each look is tried. */
const ACTIVE = 'a[href], button, input, textarea, select, summary, [role="option"], [role="tab"]';

/** The least ratio of text to its ground, and of the ring around what is focused to the ground beside it (WCAG 2.2: 1.4.3, 1.4.11). */
const TEXT = 4.5;
const RING = 3;

interface Seen {
  what: string;
  ratio: number;
}

/** In the page: the ratio of every text within the elements to the ground it stands on, as painted. */
function addMeasure(): void {
  const canvas = Object.assign(document.createElement('canvas'), { width: 1, height: 1 });
  const paint = canvas.getContext('2d', { willReadFrequently: true })!;
  const pixel = () => [...paint.getImageData(0, 0, 1, 1).data].slice(0, 3);
  const layer = (color: string, alpha = 1) => {
    paint.globalAlpha = alpha;
    paint.fillStyle = color;
    paint.fillRect(0, 0, 1, 1);
  };
  const lightness = (rgb: number[]) => {
    const [r, g, b] = rgb.map((it) => (it / 255 <= 0.04045 ? it / 255 / 12.92 : ((it / 255 + 0.055) / 1.055) ** 2.4));
    return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
  };
  const ratio = (a: number[], b: number[]) => {
    const [low, high] = [lightness(a), lightness(b)].sort((x, y) => x - y);
    return (high! + 0.05) / (low! + 0.05);
  };
  const above = (it: Element | null): Element[] => (it ? [...above(it.parentElement), it] : []);
  const groundOf = (it: Element | null) => {
    layer(matchMedia('(prefers-color-scheme: dark)').matches ? '#000' : '#fff');
    for (const one of above(it)) layer(getComputedStyle(one).backgroundColor);
    return pixel();
  };
  const nameOf = (it: Element) =>
    `${it.tagName.toLowerCase()}.${it.className} "${(it.textContent || it.getAttribute('aria-label') || '').trim().slice(0, 30)}"`;
  const textOf = (it: Element, pseudo?: string): Seen => {
    const ground = groundOf(it);
    const faded = above(it).reduce((all, one) => all * Number(getComputedStyle(one).opacity), 1);
    layer(getComputedStyle(it, pseudo).color, faded);
    return { what: nameOf(it), ratio: ratio(pixel(), ground) };
  };
  const isSeen = (it: Element) => it.checkVisibility() && it.getBoundingClientRect().width > 1;
  const holdsText = (it: Element) => [...it.childNodes].some((node) => node.nodeType === 3 && node.textContent?.trim());
  Object.assign(window, {
    texts: (root: Element) =>
      [root, ...root.querySelectorAll('*')]
        .filter((it) => isSeen(it) && !it.closest('svg'))
        .flatMap((it) => [
          ...(holdsText(it) || (it instanceof HTMLInputElement && it.value !== '') ? [textOf(it)] : []),
          ...(it instanceof HTMLInputElement && it.placeholder !== '' && it.value === '' ? [textOf(it, '::placeholder')] : []),
        ]),
    ring: (it: Element): Seen => {
      const { outlineColor, outlineStyle, outlineWidth, boxShadow, borderColor } = getComputedStyle(it);
      const ground = groundOf(it.parentElement);
      const shown =
        outlineStyle !== 'none' && outlineWidth !== '0px' ? outlineColor : (/rgba?\([^)]*\)/.exec(boxShadow)?.[0] ?? borderColor);
      layer(shown);
      return { what: `ring of ${nameOf(it)}`, ratio: ratio(pixel(), ground) };
    },
    // One of each look: the same element with the same classes within the same kind of parent.
    looks: (active: string) => {
      const looks = new Map<string, Element>();
      for (const it of document.querySelectorAll(active)) {
        const box = it.getBoundingClientRect();
        if (!isSeen(it) || box.top < 0 || box.bottom > innerHeight || box.right > innerWidth) continue;
        const look = [it, it.parentElement, it.closest('tr, nav, header, form')]
          .map((one) => `${one?.tagName} ${one?.className} ${one?.getAttribute('aria-current')}`)
          .join(' | ');
        const key = `${look} ${it.matches(':disabled')}`;
        if (!looks.has(key)) looks.set(key, it);
      }
      return [...looks.values()];
    },
  });
}

type Measures = Window & {
  texts: (root: Element) => Seen[];
  ring: (it: Element) => Seen;
  looks: (active: string) => Element[];
};

/** What is too faint at rest, under the pointer, in focus and disabled. */
async function faint(page: Page): Promise<string[]> {
  const found: string[] = [];
  const note = (state: string, seen: readonly Seen[], least: number) =>
    found.push(...seen.filter((it) => it.ratio < least).map((it) => `${it.ratio.toFixed(2)} ${state}: ${it.what}`));
  note('at rest', await page.evaluate(() => (window as unknown as Measures).texts(document.body)), TEXT);
  const looks = await page.evaluateHandle((active) => (window as unknown as Measures).looks(active), ACTIVE);
  const count = await looks.evaluate((all) => all.length);
  for (let i = 0; i < count; i++) {
    const it = (await looks.evaluateHandle((all, at) => all[at]!, i)).asElement()!;
    const box = await it.boundingBox();
    // What one stood on may have drawn it anew.
    if (!box || !(await it.evaluate((one) => one.isConnected))) continue;
    const texts = () => it.evaluate((one) => (window as unknown as Measures).texts(one));
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    const disabled = await it.evaluate((one) => one.matches(':disabled'));
    note(disabled ? 'disabled' : 'hovered', await texts(), TEXT);
    if (disabled) continue;
    await it.evaluate((one) => (one as HTMLElement).focus());
    if (!(await it.evaluate((one) => one.isConnected))) continue;
    note('focused', await texts(), TEXT);
    // Asked and measured at once: what is focused may be drawn anew a moment later.
    const ring = await it.evaluate((one) => {
      const shown = one.isConnected && one.matches(':focus-visible') && (one as HTMLElement).tabIndex >= 0;
      return shown ? (window as unknown as Measures).ring(one) : null;
    });
    if (ring) note('focused', [ring], RING);
  }
  await page.mouse.move(0, 0);
  return found;
}

for (const colorScheme of ['light', 'dark'] as const)
  test(`every text and every ring can be seen in each state, ${colorScheme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme });
    await page.addInitScript(addMeasure);
    const messages = await (await page.request.get(`${running.url}/api/messages`)).text();
    const answer = present(/\/answer\/\w+/.exec(messages))[0];
    for (const view of [...VIEWS, answer]) {
      await page.goto(`${running.url}${view}${view.includes('?') ? '&' : '?'}as-of=2031-04`);
      await expect(page.getByRole('heading').first()).toBeVisible();
      await page.waitForLoadState('networkidle');
      // The keyboard is in use: a ring shows where the focus is.
      await page.keyboard.press('Tab');
      expect.soft([view, ...new Set(await faint(page))]).toEqual([view]);
    }
    await page.goto(`${running.url}/jobs/2108?as-of=2031-04`);
    await expect(page.getByRole('heading', { name: /^2108/ })).toBeVisible();
    for (const opens of ['?', 'Control+k']) {
      await page.keyboard.press(opens);
      await expect(page.getByRole('dialog')).toBeVisible();
      expect.soft([opens, ...new Set(await faint(page))]).toEqual([opens]);
      await page.keyboard.press('Escape');
    }
    await page
      .getByRole('button', { name: /show its workings/ })
      .first()
      .click();
    await expect(page.getByRole('complementary', { name: 'Workings' })).toBeVisible();
    expect.soft(await faint(page)).toEqual([]);
  });
