import { languageName } from "../frame/shell/languageName";
import { tag } from "../language/catalogue";
import { sampleQuery } from "./queries";
import { useMutation, useQuery } from "@tanstack/react-query";
import { Button, ButtonGroup, Dropdown } from "react-bootstrap";
import { Link, useNavigate } from "react-router";
import { post } from "../wire/api";
import { Cautions, Findings } from "../frame/care/care";
import type { Draft, Drafted, Plan, Practice } from "../wire/contract";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { number } from "../player/format";
import { Sample } from "./Sample";
import { rich, t, text, wordOf } from "../language/text";

/** PracticePage is all that the book says of one practice, beside its lamp sheet playing silently. */
export function PracticePage({ practice: p }: { practice: Practice }) {
  const sample = useQuery(sampleQuery(p.id));
  return (
    <article className="page">
      <header className="d-flex justify-content-between align-items-start">
        <div>
          <h2>{p.name}</h2>
          <p className="text-secondary mb-1">
            {[p.term, ...p.also].filter(Boolean).join(" · ")}
            {p.level && ` · ${wordOf("level", p.level)}`}
          </p>
        </div>
        <div className="d-flex gap-2">
          {p.own && (
            <Link className="btn btn-outline-primary" to={`/practices/${p.id}/edit`}>
              {t("practices.change-it")}
            </Link>
          )}
          <PlanIt practice={p} />
        </div>
      </header>
      {sample.isError && <ErrorAlert error={sample.error} retry={() => void sample.refetch()} />}
      {sample.data && <Sample score={sample.data} />}
      {p.findings.length > 0 && (
        <section className="forgroup">
          <h3>{t("frame.for-this-group")}</h3>
          <Findings list={p.findings} />
          <p className="mb-0">{t("practices.gentler-2", { gentler: p.gentler })}</p>
        </section>
      )}
      {p.language !== "" && p.language !== tag() && (
        <p className="text-secondary" role="note">
          {t("practices.not-translated", { language: languageName(p.language) })}
        </p>
      )}
      <p className="lead">{p.about}</p>
      <p className="facts">
        <span>{rich("practices.usually", { b: <b>{p.usual}</b> })}</span>
        <span>
          {rich("practices.a-round-takes", {
            b: <b>{t("practices.s", { round: number(p.round_ms / 1000) })}</b>,
          })}
        </span>
        {p.per_minute > 0 && (
          <span>{rich("practices.breaths-a-min", { b: <b>{number(p.per_minute)}</b> })}</span>
        )}
        <span>
          {rich("practices.pace", { b: <b>{p.pacers.map((pacer) => wordOf("pacer", pacer)).join(", ")}</b> })}
        </span>
        {p.intents.length > 0 && (
          <span>{t("practices.for", { value: p.intents.map((id) => wordOf("intent", id)).join(", ") })}</span>
        )}
      </p>
      <div className="columns">
        <Part title={t("practices.how")}>
          <ol>
            {p.how.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ol>
          <dl>
            <Line term={t("practices.seat")} text={p.seat} />
            <Line term={t("practices.hands")} text={p.hands} />
            <Line term={t("practices.eyes")} text={p.eyes} />
            <Line term={t("practices.locks")} text={p.locks} />
            <Line term={t("practices.in-your-school")} text={p.shown.map(text).join(" ")} />
          </dl>
        </Part>
        <Part title={t("practices.say-between-rounds")}>
          <ul>
            {p.prompts.map((line) => (
              <li key={line}>“{line}”</li>
            ))}
          </ul>
        </Part>
        {p.again.length > 0 && (
          <Part title={t("practices.again-and-again-at-own-pace")}>
            <ul>
              {p.again.map((line) => (
                <li key={line}>“{line}”</li>
              ))}
            </ul>
          </Part>
        )}
        <Part title={t("practices.watch-for")}>
          <ul>
            {p.watch.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </Part>
        <Part title={t("practices.other-ways")}>
          <dl>
            <Line term={t("practices.gentler")} text={p.gentler} />
            <Line term={t("practices.harder")} text={p.harder} />
            <Line term={t("frame.closing")} text={p.finish} />
            <Line term={t("frame.course")} text={p.course.join(t("practices.then"))} />
            <Line term={t("practices.schools")} text={p.schools.join(" ")} />
            <Line
              term={t("practices.texts")}
              text={
                p.texts.length > 0
                  ? t("practices.one-of-the-eight-retentions-verses", { value: p.texts.join(", ") })
                  : ""
              }
            />
          </dl>
        </Part>
      </div>
      <Part title={t("frame.cautions")}>
        <Cautions list={p.cautions} />
      </Part>
    </article>
  );
}

/** PlanIt begins a plan with the practice's course, paced as usual or as the teacher chooses: from there it is led. */
function PlanIt({ practice }: { practice: Practice }) {
  const navigate = useNavigate();
  const [usual, ...others] = practice.pacers;
  const add = useMutation({
    mutationFn: async (pacer: Practice["pacers"][number] | undefined) => {
      const document = { format: "vast-lantern-plan", version: 1, title: practice.name, passages: [] };
      const draft: Draft = { document, group_id: 0, change: { do: "add", text: practice.id } };
      let drafted = await post<Drafted>("/draft", draft);
      if (pacer !== undefined && pacer !== usual)
        for (let passage = 1; passage <= drafted.summary.passages.length; passage++)
          drafted = await post<Drafted>("/draft", {
            ...draft,
            document: drafted.document,
            change: { do: "pacer", passage, pacer },
          });
      return post<Plan>("/plans", { revision: 0, group_id: 0, document: drafted.document });
    },
    onSuccess: (plan) => void navigate(`/plan/${plan.id}`),
  });
  return (
    <>
      <Dropdown as={ButtonGroup} align="end">
        <Button disabled={add.isPending} onClick={() => add.mutate(usual)}>
          {t("practices.plan-it")}
        </Button>
        {others.length > 0 && (
          <>
            <Dropdown.Toggle split aria-label={t("frame.who-sets-the-pace")} disabled={add.isPending} />
            <Dropdown.Menu>
              {practice.pacers.map((pacer) => (
                <Dropdown.Item key={pacer} as="button" onClick={() => add.mutate(pacer)}>
                  {t("practices.pace-2", { value: wordOf("pacer", pacer) })}
                </Dropdown.Item>
              ))}
            </Dropdown.Menu>
          </>
        )}
      </Dropdown>
      {add.isError && <ErrorAlert error={add.error} />}
    </>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="part">
      <h3>{title}</h3>
      {children}
    </section>
  );
}

function Line({ term, text }: { term: string; text: string }) {
  if (text === "") return null;
  return (
    <>
      <dt>{term}</dt>
      <dd>{text}</dd>
    </>
  );
}
