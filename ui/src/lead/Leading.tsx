import "./lead.css";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useCallback, useState } from "react";
import { useBlocker } from "react-router";
import { useLight } from "../frame/light";
import { verbName } from "../player/answers";
import { LampSheet } from "../player/LampSheet";
import { useSound } from "../player/sound/useSound";
import { usePlace } from "../player/usePlace";
import { useWakeLock } from "../player/useWakeLock";
import { get } from "../wire/api";
import type { Score, Settings } from "../wire/contract";
import { Controls } from "./Controls";
import { type Control, controls, goOn, natural, type Press } from "./adjustments";
import { GapCard } from "./GapCard";
import { meaningOf } from "./keys";
import { LeaveCard } from "./LeaveCard";
import { Now } from "./Now";
import { Order } from "./Order";
import { Over } from "./Over";
import type { Panel } from "./panelKeys";
import { Panels } from "./Panels";
import { TopBar } from "./TopBar";
import { Unstored } from "./Unstored";
import { useArmed } from "./useArmed";
import { useGap } from "./useGap";
import { useKeys } from "./useKeys";
import { useMessage } from "./useMessage";
import { useSigns } from "./useSigns";
import { useWould } from "./useWould";

type Props = {
  score: Score;
  connected: boolean;
  take: (score: Score) => void;
  /** makes an adjustment, and takes the score after it; onSlow says what to tell while there is no answer */
  send: (press: Press, onSlow: (words: string) => void) => Promise<void>;
  /** whether a class is led, or a plan only tried out */
  live: boolean;
  children?: ReactNode;
};

/** Leading is the lead screen of a class, or of a plan that is tried out. */
export function Leading({ score, connected, take, send, live, children }: Props) {
  const [light, changeLight] = useLight("lead", "night");
  const place = usePlace(score);
  const { phase } = place;
  const { message, say } = useMessage(score, phase?.passage ?? 0);
  const [armed, arm] = useArmed();
  const [panel, setPanel] = useState<Panel>("");
  const closePanel = useCallback(() => setPanel(""), []);
  const leaving = useBlocker(
    ({ nextLocation, currentLocation }) =>
      live && !place.over && nextLocation.pathname !== currentLocation.pathname,
  );
  useWakeLock(!place.over);
  const sound = useSound("lead", score, place);
  const gap = useGap(score, place, live);
  const { data: settings } = useQuery({ queryKey: ["settings"], queryFn: () => get<Settings>("/settings") });

  const adjust = useCallback(
    async (press: Press) => {
      try {
        await send(press, (words) => say(`${verbName(press.do)}: ${words}`));
      } catch (error) {
        say((error as Error).message);
      }
    },
    [say, send],
  );

  const passage = phase ? score.passages[phase.passage - 1] : undefined;
  const groups = phase && passage ? controls(phase, passage, score.slot_ms) : [];
  const breath = phase ? natural(phase) : null;
  const on = phase ? goOn(phase) : null;
  const all = [...groups.flatMap((g) => g.controls), ...(on ? [on] : []), ...(breath ? [breath] : [])];
  const would = useWould(score, place, all, live);
  useSigns(score, sound.give);

  const pressControl = (control: Control) => {
    if (control.twice && armed !== control.id) {
      arm(control.id);
      say(`${control.name}: press again to do it`, false);
      return;
    }
    arm("");
    void adjust(control.press);
  };

  useKeys((event) => {
    if (leaving.state === "blocked" || gap.from !== null) return false;
    const meaning = meaningOf(event, { controls: all, groups, pedals: settings, panel, live });
    if (!meaning) return false;
    if ("control" in meaning) {
      setPanel("");
      pressControl(meaning.control);
    } else {
      setPanel(meaning.opens);
    }
    return true;
  });

  const opened = panel !== "" && (
    <Panels
      panel={panel}
      groups={groups}
      passage={passage}
      verbs={phase?.verbs ?? []}
      classId={score.class_id}
      sound={sound}
      take={take}
      onAdjust={adjust}
      onClose={closePanel}
    />
  );
  return (
    <div className="leading">
      <TopBar
        score={score}
        place={place}
        connected={connected}
        light={light}
        onLight={changeLight}
        onKeys={() => setPanel("keys")}
        onRoom={live ? () => setPanel("room") : undefined}
        sounds={sound.choice.on}
        onSound={() => setPanel("sound")}
      />
      {score.unstored && <Unstored unstored={score.unstored} />}
      <Order score={score} place={place} />
      <main>
        {place.over ? (
          <Over score={score} live={live} />
        ) : (
          <>
            <Now score={score} place={place} />
            <LampSheet score={score} place={place} />
            <p className={`answer ${message?.refused ? "refused" : ""}`} role="status">
              {message?.words}
            </p>
          </>
        )}
        {children}
      </main>
      {!place.over && breath && on ? (
        <Controls
          groups={groups}
          breath={breath}
          on={on}
          armed={armed}
          would={would}
          live={live}
          onPress={pressControl}
          onPanel={setPanel}
        >
          {opened}
        </Controls>
      ) : (
        opened && <aside className="controls">{opened}</aside>
      )}
      {gap.from !== null && <GapCard score={score} from={gap.from} take={take} onClose={gap.settle} />}
      <LeaveCard leaving={leaving} />
    </div>
  );
}
