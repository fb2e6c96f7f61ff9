/** How figures are written: times in the kitchen's zone, grams or ounces, C or F. Pure. */
const clockFormats = new Map<string, Intl.DateTimeFormat>();

function formatter(zone: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = zone + JSON.stringify(options);
  let found = clockFormats.get(key);
  if (!found) {
    found = new Intl.DateTimeFormat("en-GB", { timeZone: zone, hourCycle: "h23", ...options });
    clockFormats.set(key, found);
  }
  return found;
}

export const ms = (iso: string): number => Date.parse(iso);

/** 1 bread, 2 breads */
export const numbered = (count: number, one: string): string => `${count} ${one}${count === 1 ? "" : "s"}`;

/** 01:30 */
export const clock = (at: number | string, zone: string): string =>
  formatter(zone, { hour: "2-digit", minute: "2-digit" }).format(typeof at === "string" ? ms(at) : at);

/** 01:22:50 */
export const clockSeconds = (at: number | string, zone: string): string =>
  formatter(zone, { hour: "2-digit", minute: "2-digit", second: "2-digit" }).format(
    typeof at === "string" ? ms(at) : at,
  );

/** Wed */
export const weekday = (at: number | string, zone: string): string =>
  formatter(zone, { weekday: "short" }).format(typeof at === "string" ? ms(at) : at);

/** Wed 25 Nov */
export const dayName = (at: number | string, zone: string): string =>
  formatter(zone, { weekday: "short", day: "numeric", month: "short" }).format(typeof at === "string" ? ms(at) : at);

/** 25 Nov */
export const monthDay = (at: number | string, zone: string): string =>
  formatter(zone, { day: "numeric", month: "short" }).format(typeof at === "string" ? ms(at) : at);

/** Nov, or Nov 2025 */
export const monthName = (at: number | string, zone: string, year = false): string =>
  formatter(zone, { month: "short", ...(year ? { year: "numeric" } : {}) }).format(
    typeof at === "string" ? ms(at) : at,
  );

/** The clock, with its day when it is not near `now`: 18 hours ahead, 6 back, or the same day. */
export function clockNear(at: number | string, now: number, zone: string): string {
  const t = typeof at === "string" ? ms(at) : at;
  const near = t >= now ? t - now < 18 * 3600e3 : now - t < 6 * 3600e3;
  return near || weekday(t, zone) === weekday(now, zone) ? clock(t, zone) : `${weekday(t, zone)} ${clock(t, zone)}`;
}

/** Hour of the day [0, 24) in the zone, as a fraction. */
export function hourOfDay(at: number, zone: string): number {
  const [h, m] = clock(at, zone).split(":").map(Number);
  return h! + m! / 60;
}

/** 1 h 12 min, 45 min, 38 s */
export function span(milliseconds: number): string {
  const s = Math.round(Math.abs(milliseconds) / 1000);
  if (s < 90) return `${s} s`;
  const minutes = Math.round(s / 60);
  if (minutes < 60) return `${minutes} min`;
  const h = Math.floor(minutes / 60);
  if (h >= 48) {
    const over = Math.round((minutes % 1440) / 60);
    const days = Math.floor(minutes / 1440) + (over === 24 ? 1 : 0);
    return over % 24 ? `${days} days ${over} h` : `${days} days`;
  }
  const rest = minutes % 60;
  return rest ? `${h} h ${rest} min` : `${h} h`;
}

/** 1:05 */
export function countdown(milliseconds: number): string {
  const s = Math.max(0, Math.ceil(milliseconds / 1000));
  return s < 100 ? `${s}` : `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
}

export interface Units {
  mass: string;
  temp: string;
}

/** The units that a kitchen can read in. */
export const MASSES = [
  { id: "g", text: "grams" },
  { id: "oz", text: "ounces" },
] as const;
export const DEGREES = [
  { id: "C", text: "°C" },
  { id: "F", text: "°F" },
] as const;

/** Grams of the kitchen's unit of mass. */
export const gramsOf = (units: Units): number => (units.mass === "oz" ? 28.349523 : 1);

/** 458, 8.4: grams, or ounces where the kitchen wants them. The unit is written apart. */
export function mass(grams: number, units: Units): string {
  if (units.mass === "oz") {
    const oz = grams / gramsOf(units);
    return oz >= 10 ? oz.toFixed(1) : oz.toFixed(2);
  }
  return grams >= 100 ? grams.toFixed(0) : grams >= 10 ? grams.toFixed(1).replace(/\.0$/, "") : grams.toFixed(1);
}

export const massUnit = (units: Units): string => units.mass;

/** 26.4 in the kitchen's unit. */
export function temp(c: number, units: Units, digits = 0): string {
  return (units.temp === "F" ? c * 1.8 + 32 : c).toFixed(digits);
}

/** The same with its unit. */
export const degrees = (c: number, units: Units): string => `${temp(c, units)} ${tempUnit(units)}`;

/** A temperature difference in the kitchen's unit. */
export const tempUnit = (units: Units): string => (units.temp === "F" ? "°F" : "°C");

/** Degrees C as typed; text that is no temperature goes out as it is, so that the server's answer says what would be right. */
export const typedTemp = (text: string, units: Units) => (readTemp(text, units) ?? text) as number;

/** A typed temperature back in C; null when it cannot be read. `38C`, `100 F`, `38`. */
export function readTemp(text: string, units: Units): number | null {
  const match = /^\s*(-?\d+(?:[.,]\d+)?)\s*°?\s*([cf]?)\s*$/i.exec(text);
  if (!match) return null;
  const value = Number(match[1]!.replace(",", "."));
  const unit = (match[2] || units.temp).toUpperCase();
  return unit === "F" ? (value - 32) / 1.8 : value;
}

/** The mean of some values; 0 of none. */
export const mean = (values: readonly number[]): number =>
  values.reduce((sum, v) => sum + v, 0) / Math.max(values.length, 1);

export const percent = (fraction: number, digits = 0): string => (fraction * 100).toFixed(digits);

/** First letter lower, for the middle of a sentence. */
export const lower = (name: string): string => name.slice(0, 1).toLowerCase() + name.slice(1);

/** First letter a capital, for the beginning of one. */
export const capital = (text: string): string => text.slice(0, 1).toUpperCase() + text.slice(1);

/** A typed number, with a point or a comma; what cannot be read, nothing too, goes on as it was typed, so that the server says what is wrong with it. */
export const typedNumber = (text: string, value = plain(text)): number =>
  (Number.isNaN(value) ? text : value) as number;

/** A number with a point or a comma, or one between thousands (1,200); NaN for nothing. */
export const plain = (text: string): number => decimal(text.trim().replace(/^([1-9]\d{0,2}),(\d{3})$/, "$1$2"));

const decimal = (text: string): number => (text === "" ? Number.NaN : Number(text.replace(",", ".")));

const LENGTHS = { mm: 1, cm: 10, in: 25.4, inch: 25.4, inches: 25.4, '"': 25.4, "”": 25.4 };
const WEIGHTS = { g: 1, gr: 1, gram: 1, grams: 1, kg: 1000, oz: 28.3495, ounce: 28.3495, ounces: 28.3495, lb: 453.592 };
const COUNTED = { pieces: 1, breads: 1, balls: 1, rounds: 1 };
const MEASURES: Record<"count" | "g" | "mm" | "cm", { sizes: Record<string, number>; own: number }> = {
  count: { sizes: COUNTED, own: 1 },
  g: { sizes: WEIGHTS, own: 1 },
  mm: { sizes: LENGTHS, own: 1 },
  cm: { sizes: LENGTHS, own: 10 },
};
const PARTS: Record<string, number> = { "½": 0.5, "¼": 0.25, "¾": 0.75, "⅓": 1 / 3, "⅛": 0.125 };
const MEASURE = /^(\d+(?:[.,]\d+)?)?\s*(?:(\d)\/(\d+)|([½¼¾⅓⅛]))?\s*([a-z"”]*)\.?$/i;

/** A typed measure, in the unit of its field: a figure alone is `times` over, one with a unit is taken by that unit (8 inches in a field
 * of centimetres is 20.3). Other text, and a unit of another kind, go on as they were typed. */
export function typedMeasure(text: string, field: keyof typeof MEASURES, times = 1): number {
  const [, whole, over, under, part, unit] = MEASURE.exec(text.trim()) ?? [];
  const { sizes, own } = MEASURES[field];
  const size = unit ? (sizes[unit.toLowerCase()] ?? Number.NaN) / own : times;
  const thousands = !unit || unit.toLowerCase().startsWith("g"); // 1,250 g are more than a kilogram, 1,250 kg are not
  const value =
    (thousands ? plain : decimal)(whole ?? "0") + (over ? Number(over) / Number(under) : 0) + (part ? PARTS[part]! : 0);
  return typedNumber(text, whole || over || part ? Math.round(value * size * 1e4) / 1e4 : Number.NaN);
}

const SECONDS = /^(?:(\d+(?:[.,]\d+)?)\s*m(?:in\w*)?\.?)?\s*(?:(\d+(?:[.,]\d+)?)\s*(?:s(?:ec\w*)?\.?)?)?$/i;

/** A typed time on the heat in seconds: 90, 90 s, 1:30, 1.5 min, 1 min 30. */
export const typedSeconds = (text: string): number => {
  const said = text.trim();
  const minutes = /^(\d+):([0-5]\d)$/.exec(said);
  if (minutes) return Number(minutes[1]) * 60 + Number(minutes[2]);
  const parts = SECONDS.exec(said);
  if (!said || !parts) return typedNumber(text, Number.NaN);
  return 60 * plain(parts[1] ?? "0") + plain(parts[2] ?? "0");
};

/** Typed minutes, with their unit or without. */
export const typedMinutes = (text: string): number =>
  typedNumber(text, plain(text.replace(/\s*m(in\w*)?\.?\s*$/i, "")));

/** Spreads from the middle to either end of a band that holds 8 in 10. */
export const Z10 = 1.2816;
