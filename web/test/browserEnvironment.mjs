import { TestEnvironment as JsdomEnvironment } from 'jest-environment-jsdom';

/** What browsers have, jsdom has not, and Node has as well. */
const OF_NODE = ['fetch', 'Headers', 'Request', 'Response', 'ReadableStream', 'TextEncoder', 'TextDecoder', 'structuredClone'];

/** A browser without layout: what measures answers nothing, what observes never calls. */
export default class BrowserEnvironment extends JsdomEnvironment {
  constructor(config, context) {
    super({ ...config, projectConfig: { ...config.projectConfig, testEnvironmentOptions: { url: 'http://127.0.0.1:3210/', customExportConditions: ['node', 'node-addons'] } } }, context);
  }

  async setup() {
    await super.setup();
    for (const name of OF_NODE) this.global[name] ??= globalThis[name];
    Object.defineProperty(this.global.crypto, 'randomUUID', { value: () => globalThis.crypto.randomUUID(), configurable: true });
    for (const name of ['ResizeObserver', 'IntersectionObserver']) this.global[name] = class { observe() {} unobserve() {} disconnect() {} };
    this.global.EventSource = class extends this.global.EventTarget { close() {} };
    this.global.matchMedia = (media) => ({ media, matches: false, addEventListener() {}, removeEventListener() {} });
    this.global.Element.prototype.scrollIntoView = () => undefined;
    this.global.Element.prototype.getAnimations = () => [];
    this.global.IS_REACT_ACT_ENVIRONMENT = true;
  }
}
