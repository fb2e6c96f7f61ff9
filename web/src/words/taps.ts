interface Tapped {
  kind: string;
  round_no?: number | null;
  spot?: number | null;
}
const STEPS: Record<string, string> = {
  weigh: "Weighed",
  sponge: "Sponge made",
  knead: "Kneading",
  mix: "Mixed",
  ball: "Balled",
  cold_in: "In the cold",
  cold_out: "Out of the cold",
  preheat: "Heat is on",
  roll: "Rolling",
  judge: "Breads judged",
};
const ON_HEAT: Record<string, string> = {
  load: "loaded",
  turn: "turned",
  off: "taken off",
  fell: "fell",
  bubbles: "bubbles",
  browned: "first brown",
  puffed: "opened",
  dark: "too dark",
  pale: "too pale",
};

/** A tap in words, as the cook made it. */
export const tapWords = ({ kind, round_no, spot }: Tapped): string =>
  round_no != null
    ? `Round ${round_no} ${ON_HEAT[kind] ?? kind}${spot != null ? `, spot ${spot}` : ""}`
    : (STEPS[kind] ?? kind);
