import { t } from "../language/text";
import { useCallback, useEffect, useRef, useState } from "react";

export type Recorder = {
  /** why there is no microphone; empty where there may be one */
  none: string;
  /** whether the microphone is being made ready: what is said now is not in the recording yet */
  starting: boolean;
  recording: boolean;
  /** how loud it is just now, from 0 to 1 */
  level: number;
  start: () => void;
  stop: () => void;
};

/** useRecorder records from the microphone, at most so many seconds at once, as the browser gives it: nothing filtered. */
export function useRecorder(longest: number, onRecorded: (sound: Blob) => void): Recorder {
  const [none, setNone] = useState(() =>
    (navigator.mediaDevices as MediaDevices | undefined) && "MediaRecorder" in window
      ? ""
      : t("voices.no-microphone-here"),
  );
  const [state, setState] = useState<"idle" | "starting" | "recording">("idle");
  const [level, setLevel] = useState(0);
  const stream = useRef<Promise<MediaStream>>(undefined);
  const recorder = useRef<MediaRecorder>(undefined);
  const done = useRef(onRecorded);
  useEffect(() => {
    done.current = onRecorded;
  });

  const stop = useCallback(() => {
    if (recorder.current?.state === "recording") recorder.current.stop();
  }, []);

  const start = useCallback(() => {
    if (recorder.current?.state === "recording") return;
    setState("starting");
    stream.current ??= navigator.mediaDevices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    });
    stream.current.then(
      (microphone) => {
        const parts: Blob[] = [];
        const one = new MediaRecorder(microphone);
        recorder.current = one;
        let meter = () => {};
        const timer = setTimeout(stop, longest * 1000);
        one.onstart = () => {
          meter = watch(microphone, setLevel);
          setState("recording");
        };
        one.ondataavailable = (e) => parts.push(e.data);
        one.onstop = () => {
          clearTimeout(timer);
          meter();
          setState("idle");
          done.current(new Blob(parts, { type: one.mimeType }));
        };
        one.start();
      },
      (error: Error) => {
        stream.current = undefined;
        setState("idle");
        setNone(t("voices.microphone-refused", { why: `${error.message}.` }));
      },
    );
  }, [longest, stop]);

  useEffect(
    () => () => {
      stop();
      void stream.current?.then((microphone) => microphone.getTracks().forEach((track) => track.stop()));
    },
    [stop],
  );
  return { none, starting: state === "starting", recording: state === "recording", level, start, stop };
}

/** watch tells how loud a microphone is, until it is called. */
function watch(microphone: MediaStream, tell: (level: number) => void): () => void {
  const context = new AudioContext();
  const analyser = new AnalyserNode(context, { fftSize: 1024 });
  context.createMediaStreamSource(microphone).connect(analyser);
  const samples = new Float32Array(analyser.fftSize);
  let frame = requestAnimationFrame(function look() {
    analyser.getFloatTimeDomainData(samples);
    tell(samples.reduce((most, s) => Math.max(most, Math.abs(s)), 0));
    frame = requestAnimationFrame(look);
  });
  return () => {
    cancelAnimationFrame(frame);
    tell(0);
    void context.close();
  };
}
