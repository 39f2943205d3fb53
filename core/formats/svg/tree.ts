/** SVG as a tree of plain data: whoever reads the text makes it, with the reader of XML at hand. */
export interface SvgNode {
  /** Without a prefix. */
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly SvgNode[];
  /** The text in it, of style sheets. */
  readonly text: string;
}

/** How deep a tree may be, and how much may lie in it. */
export const SVG_LIMITS = { depth: 100, nodes: 100_000, marks: 20_000, points: 1_000_000 } as const;

export class NoSvg extends Error {}
