import { type Control, type Group, keyName } from "./controls";

type Props = {
  groups: Group[];
  breath: Control;
  on: Control;
  armed: string;
  onPress: (control: Control) => void;
  onNote: () => void;
  onCautions: () => void;
};

/** Controls are the live adjustments, grouped by what the teacher wants. Each says what it would do, and its key. */
export function Controls({ groups, breath, on, armed, onPress, onNote, onCautions }: Props) {
  const key = (control: Control, size = "") => (
    <Key key={control.id} control={control} size={size} armed={armed === control.id} onPress={onPress} />
  );
  return (
    <aside className="controls" aria-label="Adjustments">
      <div className="group always">
        {key(breath, "largest")}
        {key(on, "large")}
      </div>
      {groups.map((group) => (
        <div className="group" role="group" aria-label={group.name} key={group.name}>
          {group.controls.map((control) => key(control))}
        </div>
      ))}
      <div className="group">
        <button type="button" className="key" onClick={onNote}>
          <kbd>B</kbd>
          <span className="name">Note</span>
        </button>
        <button type="button" className="key" onClick={onCautions}>
          <kbd>T</kbd>
          <span className="name">Cautions</span>
        </button>
      </div>
    </aside>
  );
}

type KeyProps = { control: Control; size: string; armed: boolean; onPress: (control: Control) => void };

function Key({ control, size, armed, onPress }: KeyProps) {
  return (
    <button
      type="button"
      className={`key ${size} ${control.met ? "" : "idle"} ${armed ? "armed" : ""}`}
      aria-disabled={!control.met}
      aria-keyshortcuts={keyName(control.key)}
      onClick={(event) => {
        event.currentTarget.blur(); // the space bar must mean natural breath, not this button again
        onPress(control);
      }}
    >
      <kbd>{keyName(control.key)}</kbd>
      <span className="name">{control.name}</span>
      <span className="effect">{armed ? "press again" : control.effect}</span>
    </button>
  );
}
