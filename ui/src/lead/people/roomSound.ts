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
export function hear(out: AudioNode, sign: string, place: number): void {
  const noise = sounds[sign];
  if (!noise) return;
  for (let time = 0; time < (noise.times ?? 1); time++)
    hiss(out, noise, out.context.currentTime + 0.02 + time * noise.length * 1.6, place);
}

/** hiss is noise that is filtered, at a moment of the audio clock. */
function hiss(out: AudioNode, noise: Noise, at: number, place: number, rises = 0.25): void {
  const audio = out.context;
  const seconds = noise.length;
  const buffer = audio.createBuffer(1, Math.ceil(seconds * audio.sampleRate), audio.sampleRate);
  const samples = buffer.getChannelData(0);
  for (let i = 0; i < samples.length; i++) samples[i] = 2 * Math.random() - 1;
  const source = new AudioBufferSourceNode(audio, { buffer });
  const band = new BiquadFilterNode(audio, { type: "bandpass", frequency: noise.from, Q: noise.width });
  band.frequency.setValueAtTime(noise.from, at);
  band.frequency.exponentialRampToValueAtTime(noise.to, at + seconds);
  const gain = new GainNode(audio, { gain: 0 });
  gain.gain.setValueAtTime(0, at);
  gain.gain.linearRampToValueAtTime(0.3 * noise.loud, at + rises * seconds);
  gain.gain.linearRampToValueAtTime(0, at + seconds);
  source.connect(band).connect(gain).connect(panned(audio, place)).connect(out);
  source.start(at);
}

function panned(audio: BaseAudioContext, place: number): StereoPannerNode {
  return new StereoPannerNode(audio, { pan: 0.8 * place });
}

/** part is between 0 and 1, and the same for a place each time: what tells one of the people from another. */
const part = (place: number, salt: number) => {
  const x = Math.sin((place + 2) * 78.233 + salt * 37.719) * 43758.5453;
  return x - Math.floor(x);
};

/** stroke is a short exhale through the nose at a moment of the audio clock, a little late as each of the people is. */
export function stroke(out: AudioNode, at: number, place: number): void {
  const from = 1800 + 1600 * part(place, 1);
  const late = 0.04 * part(place, 2) + 0.015 * Math.random();
  hiss(out, { length: 0.13, from, to: 0.8 * from, width: 0.8, loud: 0.9 }, at + late, place, 0.1);
}

/** sigh is a loud breath between two moments of the audio clock: out of an open mouth, or in ocean breath. */
export function sigh(out: AudioNode, from: number, until: number, place: number): void {
  const begins = from + 0.15 * part(place, 5);
  const length = Math.max(0.5, until - begins - 0.2 - 0.3 * part(place, 6));
  const high = 1500 + 900 * part(place, 1);
  hiss(out, { length, from: high, to: 0.7 * high, width: 0.6, loud: 0.5 }, begins, place, 0.15);
}

/** The resonances of a mouth that chants Om, and of one that hums with closed lips: Hz, width, loudness. */
const mouths = {
  om: [
    [430, 5, 1],
    [800, 7, 0.5],
  ],
  hum: [[250, 4, 1]],
} as const;

/** chant is a voice between two moments of the audio clock: Om, or a hum. */
export function chant(
  out: AudioNode,
  from: number,
  until: number,
  place: number,
  kind: keyof typeof mouths,
): void {
  const audio = out.context;
  const pitch = part(place, 3) < 0.6 ? 165 + 70 * part(place, 4) : 95 + 45 * part(place, 4);
  const begins = from + 0.2 * part(place, 5);
  const ends = Math.max(begins + 0.5, until - 0.3 * part(place, 6));
  const folds = new OscillatorNode(audio, { type: "sawtooth", frequency: pitch });
  folds.frequency.linearRampToValueAtTime(pitch * 0.98, ends);
  const gain = new GainNode(audio, { gain: 0 });
  gain.gain.setValueAtTime(0, begins);
  gain.gain.linearRampToValueAtTime(0.12, begins + 0.2);
  gain.gain.setValueAtTime(0.12, ends - 0.25);
  gain.gain.linearRampToValueAtTime(0, ends);
  for (const [frequency, Q, loud] of mouths[kind]) {
    const band = new BiquadFilterNode(audio, { type: "bandpass", frequency, Q });
    folds
      .connect(band)
      .connect(new GainNode(audio, { gain: loud }))
      .connect(gain);
  }
  gain.connect(panned(audio, place)).connect(out);
  folds.start(begins);
  folds.stop(ends);
}
