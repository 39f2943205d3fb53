/** What browsers, their workers and Node.js all have besides the language itself: nothing else may be used in core. */
declare const crypto: { randomUUID(): `${string}-${string}-${string}-${string}-${string}` };
declare class TextDecoder {
  decode(bytes: Uint8Array): string;
}
declare class TextEncoder {
  encode(text: string): Uint8Array<ArrayBuffer>;
}
declare function structuredClone<T>(value: T): T;
