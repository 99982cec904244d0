import "./given.css";
import { useState } from "react";
import { Button, Card } from "react-bootstrap";
import { Link } from "react-router";
import { day } from "../../player/format";
import type { Home } from "../../wire/contract";
import { t, wordOf } from "../../language/text";
import { daysOf, noonOf } from "./stretches";

type Props = {
  given: Home[];
  onTakeBack?: (id: number) => void;
  onSound?: (home: Home) => void;
  onVoice?: (home: Home) => void;
};

/** Given is what was given to do at home, with the ways in which it goes there. */
export function Given({ given, onTakeBack, onSound, onVoice }: Props) {
  if (given.length === 0) return null;
  return (
    <section className="given" aria-label={t("frame.given-to-do-at-home")}>
      {given.map((home) => (
        <Card key={home.id} className="mb-3">
          <Card.Body>
            <h2>{home.name}</h2>
            {home.stretches.length > 1 ? (
              <ol className="stretches mb-1">
                {home.stretches.map((step) => (
                  <li key={step.first}>
                    <strong>{daysOf(step)}</strong> {step.says}
                  </li>
                ))}
              </ol>
            ) : (
              <p className="mb-1">{home.stretches[0]!.says}</p>
            )}
            <p className="small text-secondary mb-1">
              {t("frame.given", { given: day(home.given_ms) })}
              {home.begins !== "" && t("frame.day-1-2", { begins: day(noonOf(home.begins)) })}
            </p>
            <p className="mb-1">
              <strong>{home.amount}</strong>
              {home.answer !== "" && (
                <span> {t("frame.at-home-2", { value: wordOf("home-answer", home.answer) })}</span>
              )}
            </p>
            {home.sentence !== "" && <p className="mb-2">“{home.sentence}”</p>}
            <div className="d-flex flex-wrap gap-2 align-items-center">
              <Link className="btn btn-outline-primary" to={`/home/${home.id}`}>
                {t("frame.paper")}
              </Link>
              <a className="btn btn-outline-primary" href={`/api/homes/${home.id}/page`} download>
                {t("frame.page-that-plays")}
              </a>
              {onVoice && (
                <Button variant="outline-primary" onClick={() => onVoice(home)}>
                  {t("frame.page-with-your-voice")}
                </Button>
              )}
              {onSound && (
                <Button variant="outline-primary" onClick={() => onSound(home)}>
                  {t("frame.sound")}
                </Button>
              )}
              {onTakeBack && <TakeBack onTakeBack={() => onTakeBack(home.id)} />}
            </div>
          </Card.Body>
        </Card>
      ))}
    </section>
  );
}

/** TakeBack asks once more: what was handed out is out. */
function TakeBack({ onTakeBack }: { onTakeBack: () => void }) {
  const [asked, setAsked] = useState(false);
  if (!asked)
    return (
      <Button variant="link" onClick={() => setAsked(true)}>
        {t("frame.take-it-back")}
      </Button>
    );
  return (
    <>
      <Button variant="outline-danger" autoFocus onClick={onTakeBack}>
        {t("frame.take-it-out-of-the-record")}
      </Button>
      <Button variant="link" onClick={() => setAsked(false)}>
        {t("frame.keep-it")}
      </Button>
    </>
  );
}
