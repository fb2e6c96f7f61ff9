/** How a face of each colour is stippled: dots on a tile of twelve. */
export const STIPPLE: Record<string, string> = {
  light: "M3 4h.1M9 10h.1",
  golden: "M2 2h.1M6 5h.1M10 3h.1M3 8h.1M8 9.500h.1M11 11h.1",
  charred: "M1 1h.1M4 2h.1M7 1h.1M10 2h.1M2 5h.1M5 6h.1M8 5h.1M11 6h.1M1 9h.1M4 10h.1M7 9h.1M10 10h.1",
};

/** The patterns of the colours, once for a page that shows any. */
export function Stipples() {
  return (
    <>
      {Object.entries(STIPPLE).map(([word, d]) => (
        <pattern key={word} id={`skin-${word}`} width="12" height="12" patternUnits="userSpaceOnUse">
          <path d={d} stroke="var(--ink)" strokeWidth={word === "charred" ? 3 : 2.2} strokeLinecap="round" />
        </pattern>
      ))}
    </>
  );
}
