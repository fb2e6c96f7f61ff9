const KEY = "brass-clock.cook";
const MOST = 40;

/** Who taps on this tablet, as it stands beside the taps; null where nobody said. */
export const cookName = (): string | null => localStorage.getItem(KEY);

/** Say who taps on this tablet; nothing says nobody. */
export function setCookName(name: string): void {
  const said = name.trim().slice(0, MOST);
  if (said) localStorage.setItem(KEY, said);
  else localStorage.removeItem(KEY);
}
