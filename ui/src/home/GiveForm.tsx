import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form } from "react-bootstrap";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { shortDay } from "../player/format";
import type { HomeAmount, HomeGive, HomeOffer } from "../wire/contract";
import { rich, t, text, wordOf } from "../language/text";
import { useSettled } from "../frame/editing/useSettled";
import { GrowFields } from "./GrowFields";
import { homePreviewQuery } from "./queries";

type Props = {
  /** of the plan or the class, as the application has it */
  path: string;
  offer: HomeOffer;
  give: (what: HomeGive) => void;
  pending: boolean;
  error: Error | null;
};

/** What is chosen: a passage of the class, or something that was given before. */
type Chosen = { passage: number; again: number };

const plain: HomeAmount = {
  minutes: 5,
  pieces: 1,
  days: 7,
  when: "",
  evening: "",
  begins: "",
  sentence: "",
  ask: "",
  steps: [],
};

/** start is what stands in the form for what is chosen: as it was led, or as it was given before. */
function start(offer: HomeOffer, { passage, again }: Chosen) {
  const before = offer.before.find((home) => home.id === again);
  const of = offer.passages.find((p) => p.passage === passage);
  const begins = offer.begins;
  if (before) return { counts: "", tempo: "", amount: { ...amountOf(before), begins } };
  return {
    counts: of?.counts ?? "",
    tempo: of && of.tempo > 0 ? String(of.tempo) : "",
    amount: { ...(of?.usual ?? plain), begins, ask: lastAsked(offer) },
  };
}

/** lastAsked is whom people were told to ask the last time. */
function lastAsked({ given, before }: HomeOffer): string {
  return [...given, ...before].find((home) => home.ask !== "")?.ask ?? "";
}

function amountOf(home: HomeAmount): HomeAmount {
  const { minutes, pieces, days, when, evening, begins, sentence, ask, steps } = home;
  return { minutes, pieces, days, when, evening, begins, sentence, ask, steps };
}

const pause = 250; // ms without a change after which the steps are read

/** GiveForm chooses what goes home and how much of it. All of it is proposed: one key gives it. */
export function GiveForm({ path, offer, give, pending, error }: Props) {
  const [chosen, setChosen] = useState<Chosen>({
    passage: offer.passages[0]?.passage ?? 0,
    again: offer.passages.length > 0 ? 0 : offer.before[0]!.id,
  });
  const [form, setForm] = useState(() => start(offer, chosen));
  const choose = (next: Chosen) => {
    setChosen(next);
    const fresh = start(offer, next);
    const { when, sentence } = form.amount; // what was typed stays
    setForm({
      ...fresh,
      amount: {
        ...fresh.amount,
        when: when || fresh.amount.when,
        sentence: sentence || fresh.amount.sentence,
      },
    });
  };
  const amount = (part: Partial<HomeAmount>) => setForm({ ...form, amount: { ...form.amount, ...part } });
  const one = offer.passages.find((p) => p.passage === chosen.passage);
  const wanted: HomeGive = {
    ...chosen,
    counts: one && form.counts !== one.counts ? form.counts : "",
    tempo: one && Number(form.tempo) !== one.tempo ? Number(form.tempo) : 0,
    ...form.amount,
  };
  const read = useQuery(homePreviewQuery(path, useSettled(JSON.stringify(wanted), pause))).data?.steps ?? [];
  const grows = form.amount.steps.length > 0;
  return (
    <Form
      className="give"
      onSubmit={(e) => {
        e.preventDefault();
        give(wanted);
      }}
    >
      <WhatGoesHome offer={offer} chosen={chosen} choose={choose} />
      <div className="amounts">
        {one && one.counts !== "" && (
          <Field id="counts" label={t("frame.counts")}>
            <Form.Control
              value={form.counts}
              onChange={(e) => setForm({ ...form, counts: e.target.value })}
            />
          </Field>
        )}
        {one && one.tempo > 0 && (
          <Field id="tempo" label={t("home.tempo-a-minute")}>
            <Form.Control
              inputMode="decimal"
              value={form.tempo}
              onChange={(e) => setForm({ ...form, tempo: e.target.value })}
            />
          </Field>
        )}
        <Amount
          id="minutes"
          label={t("home.minutes-a-day")}
          value={form.amount.minutes}
          min={1}
          max={30}
          onChange={(minutes) => amount({ minutes })}
        />
        <Amount
          id="pieces"
          label={t("home.in-pieces-label")}
          value={form.amount.pieces}
          min={1}
          max={10}
          onChange={(pieces) => amount({ pieces })}
        />
        {!grows && (
          <Amount
            id="days"
            label={t("home.days-0-open")}
            value={form.amount.days}
            min={0}
            max={90}
            onChange={(days) => amount({ days })}
          />
        )}
        <Field id="begins" label={t("frame.day-1")}>
          <Form.Control
            type="date"
            value={form.amount.begins}
            onChange={(e) => amount({ begins: e.target.value })}
          />
        </Field>
        <Field id="when" label={t("home.when-in-the-day")}>
          <Form.Control
            list="whens"
            maxLength={60}
            placeholder={t("home.any-time")}
            value={form.amount.when}
            onChange={(e) => amount({ when: e.target.value })}
          />
        </Field>
        <Field id="evening" label={t("home.in-the-evening")}>
          <Form.Select value={form.amount.evening} onChange={(e) => amount({ evening: e.target.value })}>
            <option value="">{t("home.nothing-more")}</option>
            <option value="same">{t("home.the-same-again")}</option>
            <option value="half">{t("home.half-of-it-again")}</option>
          </Form.Select>
        </Field>
        <datalist id="whens">
          {offer.whens.map((when) => (
            <option key={when} value={when} />
          ))}
        </datalist>
      </div>
      <GrowFields
        steps={form.amount.steps}
        grows={one?.grows ?? []}
        read={grows ? read : []}
        onChange={(steps) => amount({ steps })}
      />
      {!grows && read[0] && (
        <p className="text-secondary" role="status">
          {t("home.each-time", { says: read[0].says })}
          {read[0].care.map((care, i) => (
            <span key={i} className="care">
              {text(care)}
            </span>
          ))}
        </p>
      )}
      <Field id="sentence" label={t("home.personal-note")}>
        <Form.Control
          maxLength={300}
          value={form.amount.sentence}
          onChange={(e) => amount({ sentence: e.target.value })}
        />
      </Field>
      <Field id="ask" label={t("home.whom-to-ask-and-how")}>
        <Form.Control
          maxLength={120}
          placeholder={t("home.your-name-and-number-if-empty")}
          value={form.amount.ask}
          onChange={(e) => amount({ ask: e.target.value })}
        />
      </Field>
      {error && <ErrorAlert error={error} />}
      <Button
        type="submit"
        size="lg"
        className="mt-3"
        disabled={pending}
        autoFocus={offer.given.length === 0}
      >
        {t("home.give")}
      </Button>
      <p className="text-secondary mt-2">{t("home.cautions-and-when-to-stop")}</p>
    </Form>
  );
}

type WhatProps = { offer: HomeOffer; chosen: Chosen; choose: (next: Chosen) => void };

/** WhatGoesHome is the passages of the class, the one that was its point first, and what was given before. */
function WhatGoesHome({ offer, chosen, choose }: WhatProps) {
  return (
    <fieldset>
      <legend>{t("home.what-goes-home")}</legend>
      {offer.passages.map((p, i) => (
        <Form.Check
          key={p.passage}
          type="radio"
          name="what"
          id={`passage-${p.passage}`}
          checked={chosen.passage === p.passage && chosen.again === 0}
          onChange={() => choose({ passage: p.passage, again: 0 })}
          label={
            <>
              {p.says}
              {i === 0 && <small> {t("home.the-point-of-the-class")}</small>}
            </>
          }
        />
      ))}
      {offer.before.map((home) => (
        <Form.Check
          key={`again-${home.id}`}
          type="radio"
          name="what"
          id={`again-${home.id}`}
          checked={chosen.again === home.id}
          onChange={() => choose({ passage: 0, again: home.id })}
          label={
            <>
              {rich("home.once-more", {
                name: home.name,
                says: home.says,
                small: (
                  <small>
                    {" "}
                    {t("home.given", { given: shortDay(home.given_ms) })}
                    {home.answer !== "" && `, ${wordOf("home-answer", home.answer)}`}
                  </small>
                ),
              })}
            </>
          }
        />
      ))}
    </fieldset>
  );
}

function Field({ id, label, children }: { id: string; label: string; children: React.ReactNode }) {
  return (
    <Form.Group controlId={`home-${id}`}>
      <Form.Label>{label}</Form.Label>
      {children}
    </Form.Group>
  );
}

type NumberProps = {
  id: string;
  label: string;
  value: number;
  min: number;
  max: number;
  onChange: (value: number) => void;
};

function Amount({ id, label, value, min, max, onChange }: NumberProps) {
  return (
    <Field id={id} label={label}>
      <Form.Control
        type="number"
        min={min}
        max={max}
        required
        value={value}
        onChange={(e) => onChange(Math.floor(Number(e.target.value)) || 0)}
      />
    </Field>
  );
}
