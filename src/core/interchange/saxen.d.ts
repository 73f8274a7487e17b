/** What is used of the package, which has no types of its own. */
declare module 'saxen' {
  type Decode = (text: string) => string;
  export class Parser {
    on(
      event: 'openTag',
      heard: (name: string, attributes: () => Record<string, string> | false) => void,
    ): this;
    on(event: 'closeTag', heard: (name: string) => void): this;
    on(event: 'text', heard: (text: string, decode: Decode) => void): this;
    on(event: 'cdata', heard: (text: string) => void): this;
    on(event: 'error', heard: (error: Error) => void): this;
    /** Reads a document to its end, or to `stop`; gives the error where there was one. */
    parse(xml: string): Error | null | undefined;
    stop(): void;
  }
}
