/** Sounds made here, one figure per action; unlocked by the first press anywhere. */
let audio: AudioContext | null = null;
const OPEN_AFTER_MS = 80;
const MUTE = "brass-clock.mute";
export type Call = "load" | "turn" | "off" | "step" | "soon" | "closing" | "test";

const FIGURES: Record<Call, [number, number][]> = {
  load: [
    [392, 0.14],
    [523, 0.2],
  ],
  turn: [
    [659, 0.12],
    [659, 0.12],
  ],
  off: [
    [880, 0.12],
    [988, 0.12],
    [1175, 0.22],
  ],
  step: [
    [523, 0.2],
    [392, 0.3],
  ],
  soon: [[392, 0.16]],
  closing: [
    [392, 0.14],
    [392, 0.14],
    [330, 0.3],
  ],
  test: [
    [523, 0.12],
    [659, 0.12],
    [784, 0.2],
  ],
};

export const muted = (): boolean => localStorage.getItem(MUTE) === "yes";
export const setMuted = (yes: boolean): void => localStorage.setItem(MUTE, yes ? "yes" : "no");

export function unlockSound(): void {
  let asked = false;
  const wake = () => {
    if (audio && audio.state !== "running") void audio.resume();
    if (asked) return;
    asked = true;
    // to open the sound takes as long as three frames: what was pressed is drawn before that
    setTimeout(() => {
      audio = new AudioContext();
      void audio.resume();
    }, OPEN_AFTER_MS);
  };
  // captured on the way down: a pressed button keeps its press to itself
  addEventListener("pointerdown", wake, true);
  addEventListener("keydown", wake, true);
}

/** Sound a call, once the first press has allowed it; silent before that and when muted. */
export async function play(call: Call): Promise<void> {
  if (muted() || !audio) return;
  await audio.resume();
  let at = audio.currentTime + 0.02;
  for (const [pitch, length] of FIGURES[call]) {
    const tone = audio.createOscillator();
    const gain = audio.createGain();
    tone.frequency.value = pitch;
    tone.type = "triangle";
    gain.gain.setValueAtTime(0.0001, at);
    gain.gain.exponentialRampToValueAtTime(0.5, at + 0.02);
    gain.gain.exponentialRampToValueAtTime(0.0001, at + length);
    tone.connect(gain).connect(audio.destination);
    tone.start(at);
    tone.stop(at + length + 0.02);
    at += length + 0.05;
  }
}
