const STORE = "brass-clock.keys";

export const keysOn = (): boolean => localStorage.getItem(STORE) !== "off";
export const setKeys = (on: boolean): void => localStorage.setItem(STORE, on ? "on" : "off");

/** Whether a key press is typing, or belongs to a control that has focus. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
