import { useEffect } from 'react';

/** Two short tones; a browser that has not been touched yet stays silent, the bar still stands. */
function ring(): void {
  const Sound = globalThis.AudioContext as typeof AudioContext | undefined;
  if (Sound === undefined) return;
  const sound = new Sound();
  if (sound.state === 'suspended') {
    void sound.close();
    return;
  }
  for (const [i, hz] of [880, 660].entries()) {
    const tone = sound.createOscillator();
    const loud = sound.createGain();
    tone.frequency.value = hz;
    loud.gain.setValueAtTime(0.25, sound.currentTime + i * 0.22);
    loud.gain.exponentialRampToValueAtTime(0.001, sound.currentTime + i * 0.22 + 0.2);
    tone.connect(loud).connect(sound.destination);
    tone.start(sound.currentTime + i * 0.22);
    tone.stop(sound.currentTime + i * 0.22 + 0.2);
  }
  setTimeout(() => void sound.close(), 800);
}

/** Rings at once and every three seconds, while it is so. */
export function useRinging(ringing: boolean): void {
  useEffect(() => {
    if (!ringing) return;
    ring();
    const again = setInterval(ring, 3_000);
    return () => clearInterval(again);
  }, [ringing]);
}
