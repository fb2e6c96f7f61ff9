const STORE = "brass-clock.keys";

export const keysOn = (): boolean => localStorage.getItem(STORE) !== "off";
export const setKeys = (on: boolean): void => localStorage.setItem(STORE, on ? "on" : "off");

/** The single key of a press that is a command: none while it is typed, with another key held, or where such keys are switched off. */
export const commandKey = (e: KeyboardEvent): string | null =>
  isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey || !keysOn() ? null : e.key;

/** Whether a key press is typing, or belongs to a control that has focus. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
