import { Button } from "react-bootstrap";
import { Cautions, Findings } from "../frame/care/care";
import type { Adjust, ScorePassage } from "../wire/contract";
import { SignSettings } from "./SignSettings";
import { SoundSettings } from "../player/sound/SoundCard";
import type { Sound } from "../player/sound/useSound";
import type { Panel } from "./panelKeys";
import type { Ear } from "./useEar";
import { EarPad } from "./EarPad";
import { CountsPad } from "./CountsPad";
import type { Desk } from "./desk";
import { KeyCard } from "./KeyCard";
import { Note } from "./Note";
import { Pad } from "./Pad";
import { RoomCard } from "./RoomCard";
import { SeenPad } from "./SeenPad";
import { TapPad } from "./TapPad";
import { t } from "../language/text";

type Props = {
  panel: Panel;
  passage: ScorePassage | undefined;
  phase: string; // what is breathed now
  verbs: Adjust["do"][];
  desk: Desk;
  sound: Sound;
  ear: Ear;
  onListen: () => void;
  few: boolean;
  onFew: () => void;
  onAdjust: (press: Omit<Adjust, "key">) => Promise<void>;
  onClose: () => void;
};

export function Panels(props: Props) {
  const { panel, passage, phase, verbs, desk, sound, onAdjust, onClose } = props;
  switch (panel) {
    case "keys":
      return <KeyCard few={props.few} onFew={props.onFew} onClose={onClose} />;
    case "sound":
      return (
        <Pad title={t("lead.sound-of-this-screen")} onClose={onClose}>
          <SoundSettings sound={sound}>
            <SignSettings sound={sound} />
          </SoundSettings>
        </Pad>
      );
    case "room":
      return <RoomCard onClose={onClose} />;
    case "seen":
      return desk.asks ? (
        <SeenPad
          asks={desk.asks}
          signs={passage?.signs ?? []}
          phase={phase}
          onAdjust={onAdjust}
          onListen={props.onListen}
          onClose={onClose}
        />
      ) : null;
    case "tap":
      return desk.asks ? (
        <TapPad asks={desk.asks} onAdjust={(press) => void onAdjust(press)} onClose={onClose} />
      ) : null;
    case "ear":
      return <EarPad ear={props.ear} passage={passage} onClose={onClose} />;
    case "counts":
      return passage ? (
        <CountsPad
          passage={passage}
          verbs={verbs}
          onAdjust={(press) => void onAdjust(press)}
          onClose={onClose}
        />
      ) : null;
    case "note":
      return (
        <Note
          onClose={onClose}
          onNote={(text, next) => {
            onClose();
            void onAdjust(next ? { do: "note", text, carry: true } : { do: "note", text });
          }}
        />
      );
    case "cautions":
      return (
        <Care
          passage={passage}
          holds={verbs.includes("drop-holds")}
          onDrop={() => {
            onClose();
            void onAdjust({ do: "drop-holds" });
          }}
          onClose={onClose}
        />
      );
  }
  return null;
}

type CareProps = {
  passage: ScorePassage | undefined;
  holds: boolean;
  onDrop: () => void;
  onClose: () => void;
};

/** Care is the cautions of the practice and of the group, with the gentle variant of holds one key away. */
function Care({ passage, holds, onDrop, onClose }: CareProps) {
  return (
    <Pad title={t("frame.cautions")} onClose={onClose}>
      {(passage?.cautions.length ?? 0) === 0 && (
        <p>{t("lead.none-for", { name: passage?.name ?? t("lead.this-part") })}</p>
      )}
      {passage && passage.findings.length > 0 && (
        <>
          <h3>{t("frame.for-this-group")}</h3>
          <Findings list={passage.findings} />
        </>
      )}
      {holds && passage && passage.cautions.some((c) => c.strong) && (
        <Button className="mb-3" onClick={onDrop}>
          <kbd>G</kbd> {t("lead.no-holds-from-here")}
        </Button>
      )}
      {passage && <Cautions list={passage.cautions} />}
    </Pad>
  );
}
