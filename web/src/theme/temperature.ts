import { scaleLinear } from "d3-scale";

/** The one continuous colour scale. It means temperature [C] everywhere, and nothing else. */
export const STOPS: readonly [number, string][] = [
  [0, "#1F5C66"],
  [5, "#3B8280"],
  [12, "#8DB6A5"],
  [21, "#EADFC2"],
  [28, "#F3C795"],
  [36, "#EF9F58"],
  [60, "#E0803A"],
  [80, "#D16628"],
  [100, "#BF4F1D"],
  [180, "#A23718"],
  [260, "#872417"],
  [480, "#621212"],
];
export const heatColour = scaleLinear<string>()
  .domain(STOPS.map((s) => s[0]))
  .range(STOPS.map((s) => s[1]))
  .clamp(true);

/** Ink or bone, whichever reads on that heat. */
export const onHeat = (c: number): string => (c > 0 && c < 90 ? "#21272A" : "#EFE8D8");
