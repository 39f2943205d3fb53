/** Files handed to the user. */

/** Fetches what lies at an address as a file. */
export function fetchFile(href: string, name: string): void {
  const link = document.createElement('a');
  link.href = href;
  link.download = name;
  link.click();
}

/** Hands content over as a file. */
export function handOver(content: Blob | string, name: string, type = ''): void {
  const href = URL.createObjectURL(typeof content === 'string' ? new Blob([content], { type }) : content);
  fetchFile(href, name);
  setTimeout(() => {
    URL.revokeObjectURL(href);
  }, 10_000);
}
