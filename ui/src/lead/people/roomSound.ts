/** How something in the room sounds: breath or cloth, as noise that is filtered; in seconds and Hz. */
type Noise = { length: number; from: number; to: number; width: number; loud: number; times?: number };

const sounds: { [sign: string]: Noise } = {
  gasp: { length: 0.45, from: 900, to: 2400, width: 1.1, loud: 0.5 },
  rushed: { length: 0.7, from: 1500, to: 500, width: 0.9, loud: 0.35 },
  strokes: { length: 0.12, from: 420, to: 300, width: 1.2, loud: 0.7, times: 2 }, // a cough
  unwell: { length: 0.13, from: 380, to: 280, width: 1.2, loud: 0.8, times: 2 },
  restless: { length: 0.35, from: 3200, to: 4200, width: 0.7, loud: 0.16, times: 2 }, // cloth
  late: { length: 0.2, from: 2800, to: 3400, width: 0.7, loud: 0.08 },
  interrupted: { length: 0.5, from: 260, to: 190, width: 2, loud: 0.6 }, // a door
};

/** hear lets a sign be heard at a place between left, -1, and right, 1. Not everything sounds. */
export function hear(audio: AudioContext, sign: string, place: number): void {
  const noise = sounds[sign];
  if (!noise) return;
  const seconds = noise.length;
  const buffer = audio.createBuffer(1, Math.ceil(seconds * audio.sampleRate), audio.sampleRate);
  const samples = buffer.getChannelData(0);
  for (let i = 0; i < samples.length; i++) samples[i] = 2 * Math.random() - 1;
  for (let time = 0; time < (noise.times ?? 1); time++) {
    const at = audio.currentTime + 0.02 + time * seconds * 1.6;
    const source = new AudioBufferSourceNode(audio, { buffer });
    const band = new BiquadFilterNode(audio, { type: "bandpass", frequency: noise.from, Q: noise.width });
    band.frequency.setValueAtTime(noise.from, at);
    band.frequency.exponentialRampToValueAtTime(noise.to, at + seconds);
    const gain = new GainNode(audio, { gain: 0 });
    gain.gain.setValueAtTime(0, at);
    gain.gain.linearRampToValueAtTime(0.3 * noise.loud, at + 0.25 * seconds);
    gain.gain.linearRampToValueAtTime(0, at + seconds);
    const pan = new StereoPannerNode(audio, { pan: 0.8 * place });
    source.connect(band).connect(gain).connect(pan).connect(audio.destination);
    source.start(at);
  }
}
