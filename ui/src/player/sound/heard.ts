/**
 * heardIn is when something has to begin on the audio clock to be heard in so many ms. What is played now is heard later, by what
 * the device takes for it: a few ms, or a fifth of a second by a wireless loudspeaker.
 */
export function heardIn(audio: AudioContext, ms: number): number {
  return Math.max(audio.currentTime, heardNow(audio) + ms / 1000);
}

const apart = 1; // s: a reading of the device that is further from the clock than this is none

/** heardNow is what is heard at this moment, as the device tells it; else as long ago as it says that it takes. */
function heardNow(audio: AudioContext): number {
  const { contextTime = 0, performanceTime = 0 } = audio.getOutputTimestamp?.() ?? {};
  const heard = contextTime + (performance.now() - performanceTime) / 1000;
  if (contextTime > 0 && performanceTime > 0 && Math.abs(heard - audio.currentTime) < apart) return heard;
  return audio.currentTime - (audio.outputLatency || 0);
}
