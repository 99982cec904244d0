import { settingsQuery } from "../wire/queries";
import "../player/player.css";
import "./lead.css";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useCallback, useState } from "react";
import { useBlocker } from "react-router";
import type { Alone, Leader } from "../apart/leader";
import { usualKeys } from "../frame/keys/letters";
import { useLight } from "../frame/shell/light";
import { LaneLine } from "../player/LaneLine";
import { useClock } from "../player/clock";
import { Stage } from "../player/Stage";
import { useSound } from "../player/sound/useSound";
import { classTime, usePlace } from "../player/usePlace";
import { useSay } from "../player/say";
import { awakeText, useAwake } from "../player/useAwake";
import type { CardUp, Score } from "../wire/contract";
import { Controls } from "./Controls";
import type { Desk } from "./desk";
import {
  type Control,
  controls,
  goOn as goOnControl,
  handOf,
  laneOf,
  natural,
  type Press,
  toggled,
  usualLater,
  usualRecall,
} from "./adjustments";
import { advanced, Once } from "./ahead";
import { another, cardsOf, turning } from "./cards";
import { CardTurner } from "./CardTurner";
import { useFewKeys } from "./fewKeys";
import { GapCard } from "./GapCard";
import { withPreview } from "./effects";
import { type Meaning, meaningOf, remoteMeaning, waysOf } from "./keys";
import { LeaveCard } from "./LeaveCard";
import { Order } from "./Order";
import { Over } from "./Over";
import { type Panel, whileLed } from "./panelKeys";
import { Panels } from "./Panels";
import { useSignals } from "./SeenPad";
import { TopBar } from "./TopBar";
import { TwoClasses } from "./TwoClasses";
import { Unstored } from "./Unstored";
import { useArmed } from "./useArmed";
import { useEar } from "./useEar";
import { useGap } from "./useGap";
import { useKeys } from "./useKeys";
import { useMessage } from "./useMessage";
import { usePresses } from "../frame/keys/usePresses";
import { useSigns } from "./useSigns";
import { useStable } from "./useStable";
import { useWould } from "./useWould";
import { failureText, t, text, wordOf } from "../language/text";

type Props = {
  score: Score;
  connected: boolean;
  desk: Desk;
  /** whether a class is really led, not tried out or rehearsed */
  live: boolean;
  /** listenTo is what is listened to in the place of the microphone */
  listenTo?: () => MediaStream;
  /** how this screen does without the program, where it has a copy of the class */
  apart?: { leader: Leader; alone: Alone };
  /** what stands below the count */
  beside?: ReactNode;
  /** what stands in the place of the count, where it is not to be read */
  covered?: ReactNode;
  children?: ReactNode;
};

/** Leading is the lead screen of a class, or of a plan that is tried out. */
export function Leading({
  score: given,
  connected,
  desk,
  apart,
  live,
  listenTo,
  beside,
  covered,
  children,
}: Props) {
  const clock = useClock();
  const [turned, setTurned] = useState<CardUp>({ passage: 0, card: 0 }); // by this screen
  const [ahead, setAhead] = useState<{ of: Score; score: Score } | null>(null);
  const score = ahead?.of === given ? ahead.score : given;
  const [light, changeLight] = useLight("lead", "night");
  const place = usePlace(score);
  const { phase } = place;
  const { message, say } = useMessage(score, phase?.passage ?? 0);
  const [armed, arm] = useArmed();
  const [panel, setPanel] = useState<Panel>("");
  const closePanel = useCallback(() => setPanel(""), []);
  const leaving = useBlocker(
    ({ nextLocation, currentLocation }) =>
      live &&
      !place.over &&
      nextLocation.pathname !== currentLocation.pathname &&
      !/^\/(remote|lead)\//.test(nextLocation.pathname), // which leads on
  );
  const awake = useAwake(!place.over);
  const written = useSay();
  const sound = useSound("lead", score, place);
  const gap = useGap(score, place, live);
  const { data: settings } = useQuery(settingsQuery);

  useSignals();

  const [later, setLater] = useState(usualLater);
  const [few, changeFew] = useFewKeys();
  const [once] = useState(() => new Once());
  const [recall, setRecall] = useState(usualRecall);
  const [putOff, setPutOff] = useState<Alone["asked"]>(null);

  const adjust = useCallback(
    async (press: Press, key?: string) => {
      try {
        const reaching = press.do === "tempo" ? { carry: later.tempo, ...press } : press;
        await desk.send(reaching, () => say(`${wordOf("verb", press.do)}: ${t("lead.not-sent-yet")}`), key);
      } catch (error) {
        setAhead(null);
        say(failureText(error));
      }
    },
    [say, desk, later.tempo],
  );

  const passage = phase ? score.passages[phase.passage - 1] : undefined;
  const keys = settings?.keys ?? usualKeys;
  const at = phase && passage ? { phase, passage, slot: score.slot_ms, later, recall, keys } : null;
  const plain = at ? controls(at) : [];
  const breath = phase ? natural(phase) : null;
  const cards = cardsOf(score, phase ?? undefined, desk.turn ? score.card_up : turned);
  const on = at ? turning(goOnControl(at), cards) : null;
  const lane = at ? laneOf(at) : null;
  const hand = at ? handOf(at) : null;
  const always = [on, breath, lane, hand].filter((control) => control !== null);
  const { previews, settled } = useWould(
    score,
    place,
    [...plain.flatMap((g) => g.controls), ...always],
    desk.asks,
  );
  // A card that is turned changes nothing of the class.
  const would = another(cards, 1) ? new Map([...previews].filter(([id]) => id !== "go-on")) : previews;
  const groups = plain.map((group) => ({
    ...group,
    controls: group.controls.map((control) => withPreview(control, would.get(control.id), score, settled)),
  }));
  const all = [...groups.flatMap((g) => g.controls), ...always];
  useSigns(score, message, sound);

  const turn = (to: CardUp) => {
    setTurned(to);
    if (!desk.turn) return;
    setAhead({ of: given, score: { ...score, card_up: to } }); // here at once, also without the network
    void desk.turn(to).catch((error: unknown) => say(failureText(error)));
  };

  const pressControl = (control: Control) => {
    const next = control.press.do === "advance" ? another(cards, 1) : null;
    if (next) return void (once.counts(performance.now()) && turn(next)); // a pedal that bounces turns one
    if (control.twice && armed !== control.id) {
      arm(control.id);
      say(t("lead.press-again-to-do", { name: control.name }), false);
      return;
    }
    arm("");
    if (control.press.do === "advance" && phase?.open) {
      if (!once.counts(performance.now())) return;
      const next = control.met ? advanced(score, classTime(score, clock)) : null;
      if (next) setAhead({ of: given, score: next }); // the word changes at once; the answer puts it right
    }
    if (control.chooses === undefined) void adjust(control.press);
    else if (control.met) setRecall(control.chooses);
  };

  const onPress = useStable(pressControl);

  /** goOn ends the phase that waits, because of what was heard. */
  const goOn = useStable((because: string, key: string) => {
    if (!phase?.open || !on?.met || on.press.do !== "advance" || !once.counts(performance.now())) return;
    const next = advanced(score, classTime(score, clock));
    if (next) setAhead({ of: given, score: next });
    void adjust({ do: "advance", because }, key);
  });
  const ear = useEar({ score, place, desk, plays: sound.choice.on, listenTo, adjust, goOn, say });

  const asked = apart?.alone.asked ?? null;
  const asking: Panel =
    leaving.state === "blocked"
      ? "leave"
      : gap.from !== null
        ? "gap"
        : asked && putOff !== asked
          ? "two-classes"
          : "";
  const keyboard = { controls: all, keys, panel: asking || panel, asks: desk.asks !== undefined };
  const follow = (meaning: Meaning) => {
    if (!meaning) return false;
    if (meaning === "reach") setLater(toggled);
    else if (meaning === "few") changeFew();
    else if ("control" in meaning) {
      setPanel("");
      pressControl(meaning.control);
    } else setPanel(meaning.opens);
    return true;
  };
  useKeys((event) => waysOf(event.key, keys).length === 0 && follow(meaningOf(event, keyboard)));
  usePresses({
    wants: (key) => waysOf(key, keys),
    atOnce: (key) =>
      phase?.open === true &&
      keys.remote.some((r) => r.key === key && r.press === "short" && r.means === "go-on"),
    pressed: (key, way) => void follow(remoteMeaning(key, way, keyboard)),
  });

  const opened =
    asking !== "" ? (
      asking === "leave" ? (
        <LeaveCard leaving={leaving} />
      ) : asking === "two-classes" ? (
        <TwoClasses asked={asked!} leader={apart!.leader} onClose={() => setPutOff(asked)} />
      ) : (
        <GapCard score={score} from={gap.from!} away={desk.away!} onClose={gap.settle} />
      )
    ) : (
      panel !== "" &&
      !(place.over && whileLed.includes(panel)) && (
        <Panels
          panel={panel}
          passage={passage}
          phase={phase?.kind ?? ""}
          verbs={phase?.verbs ?? []}
          desk={desk}
          sound={sound}
          ear={ear}
          onListen={() => setPanel("ear")}
          few={few}
          onFew={changeFew}
          onAdjust={adjust}
          onClose={closePanel}
        />
      )
    );
  return (
    // For tests: whether it can go on by itself, and what the program does not have yet.
    <div className="leading" data-alone={apart?.alone.ready} data-unsent={apart?.alone.unsent}>
      <TopBar
        score={score}
        place={place}
        connected={connected}
        alone={apart?.alone}
        ear={ear}
        onEar={() => setPanel("ear")}
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
            <div
              role="presentation"
              className="stagebox"
              onClick={(phase?.open || another(cards, 1)) && on ? () => pressControl(on) : undefined}
            >
              {covered || <Stage score={score} place={place} script={cards?.text} leads />}
            </div>
            {!covered && cards && <CardTurner cards={cards} onTurn={turn} />}
            {!covered && <LaneLine score={score} />}
            {beside}
            <p className={`answer ${message?.refused ? "refused" : ""}`} role="status">
              {message?.words ?? (ear.proposal ? text(ear.proposal.say) : awakeText(awake, written))}
            </p>
          </>
        )}
        {children}
      </main>
      {!place.over && breath && on && lane && hand ? (
        <Controls
          groups={groups}
          breath={breath}
          on={on}
          lane={lane}
          hand={hand}
          armed={armed}
          would={would}
          asks={desk.asks !== undefined}
          lap={live ? score.class_id : null}
          keys={keys}
          carry={passage && passage.carries > 0 && passage.tempo > 0 ? later.tempo : null}
          onCarry={() => setLater(toggled)}
          few={few}
          onFew={changeFew}
          onPress={onPress}
          onPanel={setPanel}
        >
          {opened}
        </Controls>
      ) : (
        opened && <aside className="controls">{opened}</aside>
      )}
    </div>
  );
}
