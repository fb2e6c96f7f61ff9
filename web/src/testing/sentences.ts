import * as ts from "typescript";

const WORD = /[\p{L}’']*\p{L}[\p{L}’'-]*/gu;
/** What is a style, a drawing, a path or a name of a browser's own, and no words for a reader. */
const NO_WORDS = /var\(--|px\b|^[Mm][\d .-]|minmax\(|^\/|^[\w.#-]+$/;

/** True for text that a reader reads as a sentence or a phrase: four words, or fewer that end like a sentence. */
function isSentence(text: string): boolean {
  const words = (text.match(WORD) ?? []).filter((w) => w.length > 1);
  return words.length >= 4 || (words.length >= 2 && /[.?…!]$/.test(text.trim()));
}

/** The sentences written into a component's source, in their order. */
export function sentencesIn(source: string): string[] {
  const file = ts.createSourceFile("a.tsx", source, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX);
  const found: string[] = [];
  const told = (text: string) => {
    const flat = text.replace(/\s+/g, " ").trim();
    if (isSentence(flat) && !NO_WORDS.test(flat)) found.push(flat);
  };
  const visit = (node: ts.Node): void => {
    if (ts.isTaggedTemplateExpression(node) || ts.isImportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isJsxText(node) || ts.isStringLiteralLike(node)) told(node.text);
    if (ts.isTemplateExpression(node))
      told([node.head, ...node.templateSpans.map((s) => s.literal)].map((p) => p.text).join(" "));
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}
