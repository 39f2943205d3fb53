/** An amount of bytes in words. */
export function sizeText(bytes: number): string {
  if (bytes < 1e6) return `${Math.ceil(bytes / 1000)} kB`;
  return bytes < 1e9 ? `${(bytes / 1e6).toFixed(1)} MB` : `${(bytes / 1e9).toFixed(1)} GB`;
}
