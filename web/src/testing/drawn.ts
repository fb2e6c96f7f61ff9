/** What tests read off a drawing. */
export const num = (e: Element, name: string): number => Number(e.getAttribute(name));
export const drawingLabel = (root: HTMLElement): string => root.querySelector("svg")!.getAttribute("aria-label")!;
export const texts = (root: ParentNode): (string | null)[] =>
  [...root.querySelectorAll("text")].map((t) => t.textContent);
/** The first text that holds `words`. */
export const textWith = (root: ParentNode, words: string): SVGTextElement =>
  [...root.querySelectorAll("text")].find((t) => t.textContent.includes(words))!;
/** The points of a path of straight lines, in px. */
export const points = (d: string): (readonly [number, number])[] =>
  [...d.matchAll(/[ML](-?[\d.]+)[, ](-?[\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])] as const);
/** The path that is drawn with that width of line. */
export const stroked = (root: ParentNode, width: string): SVGPathElement =>
  [...root.querySelectorAll("path")].find((p) => p.getAttribute("stroke-width") === width)!;
