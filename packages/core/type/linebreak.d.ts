declare module 'linebreak' {
  /** The Unicode Line Breaking Algorithm (UAX 14). */
  export default class LineBreaker {
    constructor(text: string);
    nextBreak(): { position: number; required: boolean } | null;
  }
}
