import { heatColour } from "../theme/temperature";

/** What is seen of a bread at one second; shares, 1: bubbles all over, dull all over, golden, spots, a full pocket. */
export interface Look {
  bubbles: number;
  dull: number;
  brown: number;
  char: number;
  pocket: number;
}
const GOLDEN_ANGLE = 2.399963;
const [BUBBLES, TICKS, SPOTS, BLACK] = [24, 96, 34, 12];
const LIGHT = 0.25; // of golden: what reads as light

const placeOf = (i: number, of: number, reach: number, shift: number) => {
  const angle = i * GOLDEN_ANGLE + shift;
  const r = reach * Math.sqrt((i + 0.5) / of);
  return { x: 100 + r * Math.cos(angle), y: 100 + r * Math.sin(angle), turn: ((angle * 180) / Math.PI) % 180 };
};
/** An order that looks like none: the same each time. */
const mixed = (i: number, of: number): number => (i * 7 + 3) % of;

/** A bread from above, drawn in ink so that it needs no colour: bubbles stand up, the dull skin is hatched from its edge, brown spots and black ones. */
export function BreadFace({ look, size }: { look: Look; size: number }) {
  const spots = Math.round(SPOTS * Math.min(look.brown, 1.15));
  return (
    <svg width={size} height={size} viewBox="0 0 200 200" aria-hidden="true">
      <circle cx="100" cy="100" r="92" fill="var(--paper)" stroke="var(--ink)" strokeWidth="3" />
      {Array.from({ length: TICKS }, (_, i) => {
        const share = (mixed(i, TICKS) + 1) / TICKS;
        if (share > look.dull) return null;
        const a = (i / TICKS) * 2 * Math.PI;
        const inner = 92 - 8 - 6 * look.dull - (i % 3) * 3;
        return (
          <path
            key={i}
            d={`M${100 + 90 * Math.cos(a)} ${100 + 90 * Math.sin(a)}L${100 + inner * Math.cos(a)} ${100 + inner * Math.sin(a)}`}
            stroke="var(--ink)"
            strokeWidth="1.600"
          />
        );
      })}
      {Array.from({ length: Math.max(spots, 0) }, (_, i) => {
        const p = placeOf(mixed(i, SPOTS), SPOTS, 80, 0.9);
        return (
          <ellipse
            key={i}
            cx={p.x}
            cy={p.y}
            rx={6}
            ry={4}
            transform={`rotate(${p.turn} ${p.x} ${p.y})`}
            fill={look.brown < LIGHT ? "none" : "var(--ink-2)"}
            stroke="var(--ink-2)"
            strokeWidth="1.500"
          />
        );
      })}
      {Array.from({ length: Math.round(BLACK * Math.min(look.char, 1.6)) }, (_, i) => {
        const p = placeOf(mixed(i, BLACK), BLACK, 76, 2.1);
        return <circle key={i} cx={p.x} cy={p.y} r={9} fill="var(--ink)" />;
      })}
      {Array.from({ length: BUBBLES }, (_, i) => {
        const from = (i + 1) / BUBBLES;
        if (from > look.bubbles) return null;
        const p = placeOf(mixed(i, BUBBLES), BUBBLES, 78, 0);
        const r = Math.min(3 + 7 * (look.bubbles - from) + (i % 4), 12);
        return (
          <g key={i} fill="var(--paper)" stroke="var(--ink)" strokeWidth="2">
            <circle cx={p.x} cy={p.y} r={r} />
            <path
              d={`M${p.x + r * 0.1} ${p.y + r * 0.6}a${r * 0.6} ${r * 0.6} 0 0 0 ${r * 0.5} -${r * 0.5}`}
              fill="none"
            />
          </g>
        );
      })}
    </svg>
  );
}

/** The bread on its plate, from above and, beneath, from the side: how high its pocket stands. */
export function OnPlate({ look, plateC, size, about }: { look: Look; plateC: number; size: number; about: string }) {
  const h = 8 + look.pocket * 40;
  return (
    <svg width={size} height={size * 1.14} viewBox="0 0 300 342" role="img" aria-label={about}>
      <circle cx="150" cy="132" r="128" fill={heatColour(plateC)} stroke="var(--ink)" strokeWidth="3" />
      <circle cx="150" cy="132" r="121" fill="none" stroke="#EFE8D8" strokeOpacity="0.5" />
      <svg x="48" y="30" width="204" height="204" viewBox="0 0 200 200">
        <BreadFace look={look} size={200} />
      </svg>
      <rect x="14" y="326" width="272" height="12" fill={heatColour(plateC)} stroke="var(--ink)" strokeWidth="2" />
      <path
        d={`M52 325C52 ${325 - h * 1.25} 90 ${325 - h * 1.3} 150 ${325 - h * 1.3}S248 ${325 - h * 1.25} 248 325Z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="3"
      />
    </svg>
  );
}

/** The side below at its lifted edge: a strip that browns. */
export function Underside({ brown, char, width }: { brown: number; char: number; width: number }) {
  const count = Math.round(26 * Math.min(brown, 1.15));
  const black = Math.round(7 * Math.min(char, 1.5));
  return (
    <svg width={width} height={34} viewBox="0 0 240 34" aria-hidden="true" preserveAspectRatio="none">
      <path d="M2 6C60 30 180 30 238 6V22C180 46 60 46 2 22Z" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2" />
      {Array.from({ length: count }, (_, i) => {
        const x = 16 + ((mixed(i, 26) + 0.5) / 26) * 208;
        const y = 14 + 15 * Math.sin(((x - 2) / 236) * Math.PI) - 3 + (i % 3) * 3;
        return (
          <ellipse
            key={i}
            cx={x}
            cy={y}
            rx="4"
            ry="2.500"
            fill={brown < LIGHT ? "none" : "var(--ink-2)"}
            stroke="var(--ink-2)"
          />
        );
      })}
      {Array.from({ length: black }, (_, i) => {
        const x = 30 + ((mixed(i, 7) + 0.5) / 7) * 180;
        return <circle key={i} cx={x} cy={14 + 15 * Math.sin(((x - 2) / 236) * Math.PI)} r="5" fill="var(--ink)" />;
      })}
    </svg>
  );
}
