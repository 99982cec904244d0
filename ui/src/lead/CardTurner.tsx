import { Button } from "react-bootstrap";
import type { CardUp } from "../wire/contract";
import { another, type Cards } from "./cards";
import { t } from "../language/text";

/** CardTurner tells which card of the teacher's words is up, and turns one back or on. */
export function CardTurner({ cards, onTurn }: { cards: Cards; onTurn: (to: CardUp) => void }) {
  const turn = (by: 1 | -1, label: string, sign: string) => {
    const to = another(cards, by);
    return (
      <Button variant="link" disabled={!to} aria-label={label} onClick={() => to && onTurn(to)}>
        {sign}
      </Button>
    );
  };
  return (
    <p className="cardturner">
      {turn(-1, t("lead.previous-card"), "‹")}
      <span>{t("lead.card-of", { card: cards.card + 1, of: cards.of })}</span>
      {turn(1, t("lead.next-card"), "›")}
    </p>
  );
}
