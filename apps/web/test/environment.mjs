/** jsdom with Node's own fetch, streams and messages, which MSW intercepts. */
import jsdom from 'jest-environment-jsdom';

const JsdomEnvironment = jsdom.default ?? jsdom;

const FROM_NODE = [
  'fetch',
  'Request',
  'Response',
  'Headers',
  'FormData',
  'ReadableStream',
  'TransformStream',
  'WritableStream',
  'TextEncoder',
  'TextDecoder',
  'TextDecoderStream',
  'BroadcastChannel',
  'structuredClone',
  'AbortController',
  'AbortSignal',
];

export default class extends JsdomEnvironment {
  async setup() {
    await super.setup();
    for (const name of FROM_NODE) this.global[name] = globalThis[name];
    // MSW's package has a build for browsers; in tests it runs in Node.
    this.customExportConditions = [''];
  }
  exportConditions() {
    return [''];
  }
}
