import worklet from "./ear.worklet.ts?worker&url";
import { NoMicrophone, type Trouble } from "./trouble";
import { type Ask, earName, type Told } from "./told";

/** Heard is what was told, with its times as those of the page (performance.now), in ms. */
export type Heard = Told & { pageTime: (audio: number) => number };

/** Microphone is one that listens. */
export type Microphone = {
  /** what the device calls it */
  name: string;
  /** how late it hears, in ms, as far as the browser knows */
  late: number;
  /** listensFor says what is listened for now */
  listensFor: (ask: Ask) => void;
  end: () => void;
};

export type Listening = {
  /** the microphone to take; empty for the usual one */
  device: string;
  /** source is what is listened to in the place of a microphone; it is not ended */
  source?: () => MediaStream;
  onTold: (heard: Heard) => void;
  onLost: () => void;
};

/**
 * What costs least. It is the rate of the sounds that the rules were tried on, which is enough for voice and breath. Nothing is
 * played, so no loudspeaker has to be fed, and samples may come 30 ms at a time: together a third of the usual cost. A browser that
 * does not know the last two leaves them out.
 */
const cheap = { sampleRate: 16_000, latencyHint: 0.03, sinkId: { type: "none" } } as AudioContextOptions;

/** openMicrophone begins to listen. It fails with NoMicrophone. */
export async function openMicrophone({ device, source, onTold, onLost }: Listening): Promise<Microphone> {
  if (!window.isSecureContext) throw new NoMicrophone("insecure");
  if (!("mediaDevices" in navigator) || !("AudioWorkletNode" in window))
    throw new NoMicrophone("unsupported");
  const stream = source?.() ?? (await streamOf(device));
  const [track] = stream.getAudioTracks();
  let context: AudioContext | undefined;
  const end = () => {
    if (!source) for (const one of stream.getTracks()) one.stop();
    void context?.close();
  };
  try {
    const made = await connected(stream);
    context = made.context;
    const { node } = made;
    const pageTime = timing(onTold, node);
    track!.onended = () => {
      end();
      onLost();
    };
    // The context is asleep after a call, or where the browser wants a press first.
    context.onstatechange = () => void made.context.resume().catch(() => undefined);
    await context.resume();
    const { latency = 0 } = track!.getSettings() as MediaTrackSettings & { latency?: number };
    pageTime.late = latency * 1000;
    const listensFor = (ask: Ask) => node.port.postMessage(ask);
    return { name: track!.label, late: pageTime.late, listensFor, end };
  } catch (error) {
    end();
    throw error instanceof NoMicrophone ? error : new NoMicrophone("unsupported");
  }
}

async function streamOf(device: string): Promise<MediaStream> {
  // What a browser does to make speech clearer takes breath for noise.
  const audio: MediaTrackConstraints = {
    echoCancellation: false,
    noiseSuppression: false,
    autoGainControl: false,
    channelCount: 1,
    ...(device !== "" && { deviceId: device }),
  };
  try {
    return await navigator.mediaDevices.getUserMedia({ audio });
  } catch (error) {
    throw new NoMicrophone(troubleOf(error));
  }
}

/** troubleOf is what an error of getUserMedia means (W3C Media Capture and Streams, section 10.2). */
export function troubleOf(error: unknown): Trouble {
  switch (error instanceof DOMException ? error.name : "") {
    case "NotAllowedError":
    case "SecurityError":
      return "denied";
    case "NotFoundError":
    case "OverconstrainedError":
      return "none";
    case "NotReadableError":
    case "AbortError":
      return "busy";
  }
  return "unsupported";
}

/** connected has the stream heard by the processor. Some browsers connect a microphone only at its own rate. */
async function connected(stream: MediaStream): Promise<{ context: AudioContext; node: AudioWorkletNode }> {
  let error: unknown;
  for (const options of [cheap, {}]) {
    const context = new AudioContext(options);
    try {
      await context.audioWorklet.addModule(worklet);
      const source = context.createMediaStreamSource(stream);
      const node = new AudioWorkletNode(context, earName, { numberOfOutputs: 0, channelCount: 1 });
      source.connect(node);
      return { context, node };
    } catch (failed) {
      error = failed;
      void context.close();
    }
  }
  throw error;
}

/**
 * timing tells what the processor tells with times of the page. A message is late by as much as the page is busy, and the audio
 * clock falls behind where the machine was: the message of the last seconds that came soonest shows how the two clocks stand.
 */
function timing(onTold: (heard: Heard) => void, node: AudioWorkletNode): { late: number } {
  const kept = 50; // messages, some five seconds
  const behind: number[] = [];
  const timing = { late: 0 };
  node.port.onmessage = ({ data }: MessageEvent<Told>) => {
    behind.push(performance.now() - data.at * 1000);
    if (behind.length > kept) behind.shift();
    const least = Math.min(...behind);
    onTold({ ...data, pageTime: (audio) => audio * 1000 + least - timing.late });
  };
  return timing;
}
