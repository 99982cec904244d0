import { groupsQuery, practicesQuery } from "../wire/queries";
import "../player/lamps.css";
import "./practices.css";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Alert, Badge, Button, Col, Form, ListGroup, Row } from "react-bootstrap";
import { Link, useParams } from "react-router";
import type { Book, Group, Practice } from "../wire/contract";
import { Shell } from "../frame/shell/Shell";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { CopyOrImport } from "./CopyOrImport";
import { PracticePage } from "./PracticePage";
import { t, wordOf } from "../language/text";

/** PracticesView is the practice book: what can be taught, to be found, read and looked at. */
export function PracticesView() {
  const { id } = useParams();
  const [group, setGroup] = useState(0);
  const groups = useQuery(groupsQuery);
  const book = useQuery({ ...practicesQuery(group), placeholderData: keepPreviousData });
  return (
    <Shell view="practices">
      {book.isPending && <Loading what={t("practices.opening-the-practice-book")} />}
      {book.isError && <ErrorAlert error={book.error} retry={() => void book.refetch()} />}
      {book.data && (
        <Pages book={book.data} id={id} groups={groups.data?.groups ?? []} group={group} onGroup={setGroup} />
      )}
    </Shell>
  );
}

type Filter = { text: string; intent: string; kind: string; level: string; noHolds: boolean };

const kinds = (): { [kind: string]: string } => ({
  counted: t("practices.counted"),
  strokes: t("practices.strokes-2"),
  fixed: t("practices.movement"),
  open: t("practices.without-count"),
});

/** folded is a text without capitals and marks: who types "schadel" or "pranayama" finds "Schädel" and "prāṇāyāma". */
const folded = (text: string): string => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

function matches(p: Practice, f: Filter): boolean {
  const words = folded([p.name, p.term, p.about, ...p.also].join(" "));
  return (
    folded(f.text)
      .split(/\s+/)
      .every((word) => words.includes(word)) &&
    (f.intent === "" || p.intents.includes(f.intent)) &&
    (f.kind === "" || p.kind === f.kind) &&
    (f.level === "" || p.level === f.level) &&
    !(f.noHolds && p.holds)
  );
}

const anything: Filter = { text: "", intent: "", kind: "", level: "", noHolds: false };

type PagesProps = {
  book: Book;
  id: string | undefined;
  groups: Group[];
  group: number;
  onGroup: (id: number) => void;
};

function Pages({ book, id, groups, group, onGroup }: PagesProps) {
  const [filter, setFilter] = useState(anything);
  const set = (part: Partial<Filter>) => setFilter({ ...filter, ...part });
  const found = book.practices.filter((p) => matches(p, filter));
  const open = id === undefined ? found[0] : book.practices.find((p) => p.id === id);
  return (
    <Row className="g-4">
      <Col lg={4} className="booklist">
        <div className="d-flex justify-content-between align-items-baseline">
          <h1>{t("frame.practices")}</h1>
          <CopyOrImport practice={open} />
        </div>
        <Form.Control
          type="search"
          aria-label={t("practices.search-the-practices")}
          placeholder={t("practices.search")}
          value={filter.text}
          onChange={(e) => set({ text: e.target.value })}
        />
        <div className="filters">
          <Pick
            label={t("practices.for-2")}
            value={filter.intent}
            words={book.intents}
            family="intent"
            onChange={(intent) => set({ intent })}
          />
          <Pick
            label={t("practices.kind")}
            value={filter.kind}
            words={Object.keys(kinds())}
            shown={kinds()}
            onChange={(kind) => set({ kind })}
          />
          <Pick
            label={t("frame.level")}
            value={filter.level}
            words={book.levels}
            family="level"
            onChange={(level) => set({ level })}
          />
          <Form.Check
            id="no-holds"
            label={t("practices.without-holds")}
            checked={filter.noHolds}
            onChange={(e) => set({ noHolds: e.target.checked })}
          />
          <Form.Select
            size="sm"
            className="for-group"
            aria-label={t("practices.read-it-for-a-group")}
            value={group}
            onChange={(e) => onGroup(Number(e.target.value))}
          >
            <option value={0}>{t("practices.for-no-group")}</option>
            {groups.map((g) => (
              <option key={g.id} value={g.id}>
                {t("practices.for-3", { name: g.name })}
              </option>
            ))}
          </Form.Select>
        </div>
        {found.length === 0 && (
          <p>
            {t("practices.no-practices-match")}{" "}
            <Button variant="link" className="p-0" onClick={() => setFilter(anything)}>
              {t("practices.show-all")}
            </Button>
          </p>
        )}
        <ListGroup as="nav" aria-label={t("frame.practices")}>
          {found.map((p) => (
            <ListGroup.Item key={p.id} action as={Link} to={`/practices/${p.id}`} active={p.id === open?.id}>
              <span className="d-flex justify-content-between">
                <strong>{p.name}</strong>
                {p.own && <Badge>{t("practices.own")}</Badge>}
              </span>
              <small>{p.usual.replace(p.name, "").trim()}</small>
            </ListGroup.Item>
          ))}
        </ListGroup>
      </Col>
      <Col lg={8}>
        {open && <PracticePage key={open.id} practice={open} />}
        {id !== undefined && !open && (
          <Alert variant="warning">{t("practices.there-is-no-practice", { id })}</Alert>
        )}
      </Col>
    </Row>
  );
}

type PickProps = {
  label: string;
  value: string;
  words: string[];
  shown?: { [word: string]: string };
  family?: string; // of the messages that name the words
  onChange: (value: string) => void;
};

function Pick({ label, value, words, shown, family = "", onChange }: PickProps) {
  return (
    <Form.Select size="sm" aria-label={label} value={value} onChange={(e) => onChange(e.target.value)}>
      <option value="">{t("practices.any", { label })}</option>
      {words.map((word) => (
        <option key={word} value={word}>
          {shown?.[word] ?? wordOf(family, word)}
        </option>
      ))}
    </Form.Select>
  );
}
