import { TestEnvironment as JsdomEnvironment } from 'jest-environment-jsdom';
import { cheapStyle } from './cheapStyle.mjs';

/** What browsers have, jsdom has not, and Node has as well. */
const OF_NODE = ['fetch', 'Headers', 'Request', 'Response', 'ReadableStream', 'TextEncoder', 'TextDecoder', 'structuredClone'];

/** A browser whose every element is as large as a window: lists draw their lines. What observes never calls; threads never answer. */
export default class BrowserEnvironment extends JsdomEnvironment {
  constructor(config, context) {
    super({ ...config, projectConfig: { ...config.projectConfig, testEnvironmentOptions: { url: 'http://127.0.0.1:3210/', customExportConditions: ['node', 'node-addons'] } } }, context);
  }

  async setup() {
    await super.setup();
    for (const name of OF_NODE) this.global[name] ??= globalThis[name];
    Object.defineProperty(this.global.crypto, 'randomUUID', { value: () => globalThis.crypto.randomUUID(), configurable: true });
    for (const name of ['ResizeObserver', 'IntersectionObserver']) this.global[name] = class { observe() {} unobserve() {} disconnect() {} };
    for (const [owner, name, size] of [['HTMLElement', 'offsetHeight', 800], ['HTMLElement', 'offsetWidth', 1280], ['Element', 'clientHeight', 800], ['Element', 'clientWidth', 1280]]) Object.defineProperty(this.global[owner].prototype, name, { configurable: true, get: () => size });
    this.global.Worker = class extends this.global.EventTarget { postMessage() {} terminate() {} };
    this.global.EventSource = class extends this.global.EventTarget { close() {} };
    this.global.matchMedia = (media) => ({ media, matches: false, addEventListener() {}, removeEventListener() {} });
    // Of a file jsdom tells its bytes only by a reader.
    const { Blob, FileReader } = this.global;
    Blob.prototype.arrayBuffer ??= function () {
      return new Promise((resolve) => {
        const reader = new FileReader();
        reader.onload = () => resolve(reader.result);
        reader.readAsArrayBuffer(this);
      });
    };
    this.global.Element.prototype.scrollIntoView = () => undefined;
    this.global.Element.prototype.scrollTo = () => undefined;
    this.global.Element.prototype.getClientRects = function () {
      return this.isConnected ? [{ x: 0, y: 0, top: 0, left: 0, right: 1280, bottom: 800, width: 1280, height: 800 }] : [];
    };
    this.global.Range.prototype.getClientRects = () => [];
    this.global.Element.prototype.getAnimations = () => [];
    this.global.getComputedStyle = cheapStyle(this.global);
    this.global.IS_REACT_ACT_ENVIRONMENT = true;
    // What a page shows when a test fails is cut: it is long.
    this.global.process.env.DEBUG_PRINT_LIMIT ??= '1500';
  }
}
