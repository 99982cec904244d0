import { type CSSProperties, memo, type ReactNode } from "react";
import { Link } from "react-router";
import type { Preview } from "../wire/contract";
import { moves } from "./moves";
import { fewOf } from "./fewKeys";
import { type Panel, panelsOf } from "./panelKeys";
import { type Control, type Group, keyName } from "./adjustments";
import { KeyName } from "./KeyName";
import { type Keys, letterOf } from "../frame/keys/letters";
import { t } from "../language/text";

type Props = {
  groups: Group[];
  breath: Control;
  on: Control;
  lane: Control;
  hand: Control;
  armed: string;
  would: Map<string, Preview>;
  /** whether what is seen and tapped can be said */
  asks: boolean;
  /** the class that can be led from the lap; null for none */
  lap: number | null;
  keys: Keys | undefined;
  /** whether a change of tempo reaches later passages; null where there are none that it could */
  carry: boolean | null;
  onCarry: () => void;
  /** whether only the keys that a hand needs are shown */
  few: boolean;
  onFew: () => void;
  /** what was opened in the place of all keys but natural breath and going on */
  children: ReactNode;
  /** the same function as long as the screen is there */
  onPress: (control: Control) => void;
  onPanel: (panel: Panel) => void;
};

/** Controls are the live adjustments, grouped by what the teacher wants. Each says what it would do, and its key. */
export function Controls(props: Props) {
  const {
    groups,
    breath,
    on,
    lane,
    hand,
    armed,
    would,
    asks,
    lap,
    keys,
    carry,
    onCarry,
    few,
    onFew,
    children,
    onPress,
    onPanel,
  } = props;
  const key = (control: Control, size = "") => (
    <Key
      key={control.id}
      control={control}
      size={size}
      armed={armed === control.id}
      moves={moves(would.get(control.id))}
      onPress={onPress}
    />
  );
  return (
    <aside className="controls" aria-label={t("lead.adjustments")}>
      <div className="group always">
        {key(breath, "largest")}
        {key(on, "large")}
        {key(hand, "large")}
      </div>
      <div className="below">
        <div className="others" inert={Boolean(children)}>
          {few && (
            <div className="group" role="group" aria-label={t("lead.few-keys")}>
              {fewOf(groups).map((control) => key(control))}
              <button type="button" className="key" onClick={onFew}>
                <KeyName of={letterOf("few", keys)} />
                <Name of={t("lead.all-keys")} />
              </button>
            </div>
          )}
          {!few &&
            groups.map((group) => (
              <div className="group" role="group" aria-label={group.name} key={group.id}>
                {group.controls.map((control) => key(control, control.id === "finish" ? "wide" : ""))}
                {group.id === "tempo" && carry !== null && (
                  <button type="button" className="key reach" aria-pressed={!carry} onClick={onCarry}>
                    <KeyName of={letterOf("here", keys)} />
                    <Name of={carry ? t("lead.later-too") : t("lead.only-here")} />
                    <span className="effect long">{t("lead.tempo-holds")}</span>
                  </button>
                )}
              </div>
            ))}
          {!few && (
            <div className="group panels" role="group" aria-label={t("lead.more")}>
              {key(lane, "lanekey")}
              {panelsOf(asks, keys)
                .filter((p) => p.panel !== "keys") // its button is in the top bar
                .map((p) => (
                  <button
                    key={p.panel}
                    type="button"
                    className={`key to-${p.panel}`}
                    onClick={() => onPanel(p.panel)}
                  >
                    <KeyName of={p.key} />
                    <Name of={p.name} />
                  </button>
                ))}
              {lap !== null && (
                <Link className="key lap" to={`/remote/${lap}`}>
                  <Name of={t("lead.phone-remote")} />
                </Link>
              )}
            </div>
          )}
        </div>
        {children}
      </div>
    </aside>
  );
}

/** Name is what a key says, with the widths of its widest word and part of a word: in some languages it is smaller. */
const Name = memo(function Name({ of }: { of: string }) {
  const widest = (parts: RegExp) => Math.max(...of.split(parts).map(widthOf));
  const style = { "--word": widest(/[\s-]/), "--part": widest(/[\s\u00ad-]/) } as CSSProperties;
  return (
    <span className="name sized" style={style}>
      <span>{of}</span>
    </span>
  );
});

/** widthOf is about the width of a word in bold letters, in em, and rather too much. */
function widthOf(word: string): number {
  const widths = [...word.normalize("NFC").replace(/[\p{M}\u00ad]/gu, "")].map((letter) =>
    /[mwMW@]/.test(letter) ? 0.95 : /[iljtfrI'’.,:]/.test(letter) ? 0.43 : 0.66,
  );
  return widths.reduce((sum, width) => sum + width, 0.1);
}

type KeyProps = {
  control: Control;
  size: string;
  armed: boolean;
  moves: string; // the end of the class
  onPress: (control: Control) => void;
};

/** same tells whether a key looks and acts the same: most do after a press, and there are many. */
function same(a: KeyProps, b: KeyProps): boolean {
  return (
    a.size === b.size &&
    a.armed === b.armed &&
    a.moves === b.moves &&
    a.onPress === b.onPress &&
    JSON.stringify(a.control) === JSON.stringify(b.control)
  );
}

const Key = memo(function Key({ control, size, armed, moves, onPress }: KeyProps) {
  return (
    <button
      type="button"
      className={`key ${size} ${control.met ? "" : "idle"} ${armed ? "armed" : ""}`}
      aria-disabled={!control.met}
      aria-keyshortcuts={control.key === "" ? undefined : keyName(control.key)}
      onClick={(event) => {
        event.currentTarget.blur(); // the space bar must mean natural breath, not this button again
        onPress(control);
      }}
    >
      <KeyName of={control.key} />
      <Name of={control.name} />
      <span className={control.effect.length > 9 ? "effect long" : "effect"}>
        <span className="does">{armed ? t("lead.press-again") : control.effect}</span>{" "}
        {moves && (
          <span className="moves" title={t("lead.the-end-of-the-class")}>
            {moves}
          </span>
        )}
      </span>
    </button>
  );
}, same);
