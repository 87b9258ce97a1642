declare module 'wawoff2' {
  /** A font of WOFF2 as TrueType. */
  export function decompress(woff2: Uint8Array): Promise<Uint8Array>;
}
