/** GoOn is whether a passage goes on by itself when the room falls silent, and after how many seconds at the latest; 0 for never. */
export type GoOn = { on: boolean; longest: number };

/** EarChoice is what a teacher chose for listening on this device. */
export type EarChoice = {
  /** the microphone; empty for the usual one */
  device: string;
  /** whether what this device plays is heard in headphones only */
  headphones: boolean;
  /** by practice, what was chosen last: of it the longest time is taken again */
  goOn: { [practice: string]: GoOn };
};

const usual: EarChoice = { device: "", headphones: false, goOn: {} };
const stored = "ear";

export const usualGoOn: GoOn = { on: false, longest: 0 };

/** longests is after how many seconds a passage can go on at the latest. */
export const longests = [0, 10, 15, 20, 30, 45, 60];

export function keptChoice(): EarChoice {
  try {
    return { ...usual, ...(JSON.parse(localStorage.getItem(stored) ?? "{}") as Partial<EarChoice>) };
  } catch {
    return usual;
  }
}

export function keepChoice(choice: EarChoice): void {
  try {
    localStorage.setItem(stored, JSON.stringify(choice));
  } catch {
    // a full store: it is chosen again next time
  }
}
