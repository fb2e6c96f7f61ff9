/** Day, night, or as the system says; kept on this device. */
export type Pin = "system" | "day" | "night";
const KEY = "brass-clock.theme";

export function readPin(): Pin {
  const kept = localStorage.getItem(KEY);
  return kept === "day" || kept === "night" ? kept : "system";
}

export function setPin(pin: Pin): void {
  localStorage.setItem(KEY, pin);
  applyPin(pin);
}

export function applyPin(pin: Pin): void {
  if (pin === "system") delete document.documentElement.dataset.theme;
  else document.documentElement.dataset.theme = pin;
}
