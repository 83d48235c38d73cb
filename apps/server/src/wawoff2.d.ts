declare module 'wawoff2' {
  /** WOFF2 packing and unpacking (Google's woff2, as WebAssembly). */
  const wawoff2: {
    decompress(bytes: Uint8Array): Promise<Uint8Array>;
    compress(bytes: Uint8Array): Promise<Uint8Array>;
  };
  export default wawoff2;
}
