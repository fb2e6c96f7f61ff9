/** Every sentence that is read on a screen comes from the glossary: none is written into a component. */
import { expect, it } from "vitest";
import { sentencesIn } from "../testing/sentences";

const COMPONENTS = import.meta.glob<string>(["../**/*.tsx", "!../**/*.test.tsx", "!../testing/**", "!../main.tsx"], {
  query: "?raw",
  import: "default",
  eager: true,
});
const SAID = import.meta.glob<{ SAY: Record<string, string | ((...parts: string[]) => string)> }>("./say/*.ts", {
  eager: true,
});

it("no component holds a sentence of its own", () => {
  expect(Object.keys(COMPONENTS).length).toBeGreaterThan(100);
  const own = Object.entries(COMPONENTS).flatMap(([file, source]) => sentencesIn(source).map((s) => `${file}: ${s}`));
  expect(own).toEqual([]);
});

it("a sentence in a component is found: as text, as an attribute, with parts left open", () => {
  const planted = `const A = () => <p title="Serve it while warm." className="a b c d">Turn it now or
    it burns <b>{x}</b>{\`It is \${a} degrees too hot\`}<path d="M3 2h10 M3 6h10v18H3z" /></p>; const B = styled.p\`two words and more here\`;`;
  expect(sentencesIn(planted)).toEqual(["Serve it while warm.", "Turn it now or it burns", "It is degrees too hot"]);
});

it("the glossary has no riddle words, and says the same thing in one way", () => {
  const all = Object.values(SAID).flatMap(({ SAY }) =>
    Object.values(SAY).map((s) => (typeof s === "string" ? s : s(..."12345678"))),
  );
  expect(all.length).toBeGreaterThan(300);
  const riddles = /\bneck\b|the same table|moves? of the hand|\btake it\b|make it so|it reads\b|way out\b|and by\b/i;
  expect(all.filter((s) => riddles.test(s))).toEqual([]);
  expect(all.filter((s) => s.includes("undefined"))).toEqual([]);
});
