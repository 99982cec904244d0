import type { CardUp, Score, ScorePhase } from "../wire/contract";
import type { Control } from "./adjustments";
import { t } from "../language/text";

/** Cards is what is up of the teacher's own words in several parts. */
export type Cards = CardUp & { of: number; text: string };

/** cardsOf is the card that is up in a talk or a rest; null where the words of the passage have one part or none. */
export function cardsOf(score: Score, phase: ScorePhase | undefined, up: CardUp): Cards | null {
  const passage = phase && score.passages[phase.passage - 1];
  if (!passage || passage.cards.length < 2 || (phase.stage !== "talk" && phase.stage !== "free")) return null;
  const last = passage.cards.length - 1;
  const card = up.passage === phase.passage ? Math.min(up.card, last) : 0;
  return { passage: phase.passage, card, of: passage.cards.length, text: passage.cards[card]! };
}

/** another is the card so many on, or back; null where there is none. */
export function another(cards: Cards | null, by: 1 | -1): CardUp | null {
  if (!cards) return null;
  const card = cards.card + by;
  return card < 0 || card >= cards.of ? null : { passage: cards.passage, card };
}

/** turning is the key that goes on, while there are cards that it turns first: the last one goes on. */
export function turning(on: Control, cards: Cards | null): Control {
  const next = another(cards, 1);
  if (!next || !cards) return on;
  return {
    ...on,
    name: t("lead.next-card"),
    effect: t("lead.card-of", { card: next.card + 1, of: cards.of }),
    met: true,
  };
}
