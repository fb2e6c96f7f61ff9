import { muted, setMuted } from "./sound";

/** How an alarm reaches the cook: each can be switched off by itself. */
export type Channel = "sound" | "speech" | "notice";
const STORE: Record<Exclude<Channel, "sound">, string> = { speech: "brass-clock.speech", notice: "brass-clock.notice" };

export const channelOn = (channel: Channel): boolean =>
  channel === "sound" ? !muted() : localStorage.getItem(STORE[channel]) === "yes";

/** Switch one on or off; answers whether it is on now: a browser may refuse its notices. */
export async function setChannel(channel: Channel, on: boolean): Promise<boolean> {
  if (channel === "sound") {
    setMuted(!on);
    return on;
  }
  const allowed = !on || channel !== "notice" || (await mayNotify());
  localStorage.setItem(STORE[channel], on && allowed ? "yes" : "no");
  return on && allowed;
}

async function mayNotify(): Promise<boolean> {
  if (typeof Notification === "undefined") return false;
  return Notification.permission === "granted" || (await Notification.requestPermission()) === "granted";
}

/** Say a line aloud, where that is wanted and the browser has a voice. */
export function speak(line: string): void {
  if (!channelOn("speech") || typeof speechSynthesis === "undefined") return;
  const said = new SpeechSynthesisUtterance(line);
  said.lang = "en";
  speechSynthesis.speak(said);
}

/** A notice of the browser's own; the same `tag` again replaces it. */
export function notify(line: string, tag: string): void {
  if (!channelOn("notice") || typeof Notification === "undefined" || Notification.permission !== "granted") return;
  new Notification(line, { tag, silent: true });
}
