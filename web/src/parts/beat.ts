/** A short click of sound; the browser makes it, no file is loaded. High for the first of a run, lower for the rest. */
export function click(audio: AudioContext, high: boolean) {
  const at = audio.currentTime;
  const tone = audio.createOscillator();
  const loud = audio.createGain();
  tone.frequency.value = high ? 1320 : 880;
  loud.gain.setValueAtTime(0.5, at);
  loud.gain.exponentialRampToValueAtTime(0.001, at + 0.09);
  tone.connect(loud).connect(audio.destination);
  tone.start(at);
  tone.stop(at + 0.1);
}
