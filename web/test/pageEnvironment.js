import { TestEnvironment } from 'jest-environment-jsdom';

/** A page in jsdom that can also ask a server: jsdom itself has no fetch. Addresses begin at the page's own. */
export default class PageEnvironment extends TestEnvironment {
  async setup() {
    await super.setup();
    const { global } = this;
    Object.assign(global, {
      Headers,
      Response,
      AbortController,
      AbortSignal,
      ReadableStream,
      structuredClone,
      TextEncoder,
      TextDecoder,
    });
    global.Request = class extends Request {
      constructor(address, options) {
        super(address instanceof Request ? address : new URL(address, 'http://ledrin.test'), options);
      }
    };
    global.fetch = () => Promise.reject(new Error('No server is there yet: open a page by openPage'));
    // No layout is made here: boxes are told their height, so that the rows of grids and tables are drawn.
    for (const side of ['clientHeight', 'clientWidth', 'offsetHeight'])
      Object.defineProperty(global.HTMLElement.prototype, side, { configurable: true, value: 400 });
    global.HTMLElement.prototype.scrollTo = () => undefined;
    // What a browser has and Radix asks for.
    global.Element.prototype.scrollIntoView = () => undefined;
    global.Element.prototype.hasPointerCapture = () => false;
    global.ResizeObserver = class {
      observe() {}
      unobserve() {}
      disconnect() {}
    };
  }
}
