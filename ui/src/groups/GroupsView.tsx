import { Conditions } from "./Conditions";
import { groupsQuery, settingsQuery, todayQuery } from "../wire/queries";
import "./groups.css";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Alert, Button, Col, Form, ListGroup, Row } from "react-bootstrap";
import { Link, Navigate, useNavigate, useParams } from "react-router";
import { post } from "../wire/api";
import { readAgain } from "../wire/changed";
import type { Path } from "../frame/editing/merge";
import type { Group, Groups, Question } from "../wire/contract";
import { EditedNotice } from "../frame/editing/EditedNotice";
import { Choices } from "../frame/editing/Choices";
import { DeleteCard } from "../frame/dialogs/DeleteCard";
import { DeletedLately } from "../frame/dialogs/BringBack";
import { Filled } from "../frame/shell/Filled";
import filled from "../frame/filled/groups.webp";
import { Shell } from "../frame/shell/Shell";
import { TimeField } from "../frame/editing/TimeField";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { useEdited } from "../frame/editing/useEdited";
import { weekly as weektime } from "../player/format";
import { CourseOf } from "./CourseOf";
import { Programmes } from "./Programmes";
import { type Key, t, text, wordOf } from "../language/text";

const weekdays = () => [
  t("groups.sunday"),
  t("groups.monday"),
  t("groups.tuesday"),
  t("groups.wednesday"),
  t("groups.thursday"),
  t("groups.friday"),
  t("groups.saturday"),
];

const nobody: Group = {
  id: 0,
  name: "",
  level: "beginners",
  size: 0,
  weekday: -1,
  weektime: "",
  under16: false,
  conditions: {},
  schools: {},
  notes: "",
  revision: 0,
};

/** GroupsView is who is taught: level, weekly time, what must be cared for, and where the school differs. */
export function GroupsView() {
  const { id } = useParams();
  const groups = useQuery(groupsQuery);
  const [known, setKnown] = useState<Group>();
  const there = groups.data?.groups.find((g) => g.id === Number(id));
  if (there && there !== known) setKnown(there);
  const gone = groups.isSuccess && !groups.isFetching && id !== undefined && id !== "new" && !there;
  // One that is deleted elsewhere stays open: something may have been typed.
  const open = id === "new" ? nobody : (there ?? (known?.id === Number(id) ? known : undefined));
  const first = groups.data?.groups[0];
  return (
    <Shell view="groups">
      {id === undefined && first && <Navigate to={`/groups/${first.id}`} replace />}
      {groups.isPending && <Loading what={t("groups.loading-the-groups")} />}
      {groups.isError && <ErrorAlert error={groups.error} retry={() => void groups.refetch()} />}
      {groups.data && (
        <Row className="g-4">
          <Col lg={4}>
            <div className="d-flex justify-content-between align-items-baseline">
              <h1>{t("groups.groups")}</h1>
              <Link className="btn btn-outline-primary btn-sm" to="/groups/new">
                {t("groups.new-group")}
              </Link>
            </div>
            {groups.data.groups.length === 0 && <p>{t("groups.no-group-yet-a-group-remembers")}</p>}
            <ListGroup as="nav" aria-label={t("groups.groups")}>
              {groups.data.groups.map((g) => (
                <ListGroup.Item key={g.id} action as={Link} to={`/groups/${g.id}`} active={g.id === open?.id}>
                  <strong className="d-block">{g.name}</strong>
                  <small>{inShort(g)}</small>
                </ListGroup.Item>
              ))}
            </ListGroup>
            <DeletedLately kinds={["group"]} />
          </Col>
          <Col lg={8}>
            {gone && (
              <Alert variant="warning">
                {open ? t("groups.this-group-was-deleted-on-another") : t("groups.there-is-no-such-group")}
              </Alert>
            )}
            {groups.data.groups.length === 0 && !open && (
              <Filled picture={filled} says={t("groups.a-group-with-its-cautions")} />
            )}
            {open && <GroupForm key={open.id} start={open} all={groups.data} />}
            {open && open.id > 0 && (
              <>
                <h2 className="mt-4">{t("groups.programmes")}</h2>
                <Programmes key={`programmes ${open.id}`} group={open.id} />
                <h2 className="mt-4">{t("frame.course")}</h2>
                <CourseOf key={open.id} group={open.id} />
              </>
            )}
          </Col>
        </Row>
      )}
    </Shell>
  );
}

function withGroup(known: Groups, group: Group): Groups {
  return { ...known, groups: known.groups.map((one) => (one.id === group.id ? group : one)) };
}

function inShort(g: Group): string {
  const parts = [wordOf("level", g.level), g.size > 0 ? t("groups.people", { size: g.size }) : "", weekly(g)];
  const cared = Object.keys(g.conditions).length + (g.under16 ? 1 : 0);
  if (cared > 0) parts.push(t("groups.to-care", { cared }));
  return parts.filter(Boolean).join(" · ");
}

function weekly(g: Group): string {
  return g.weekday < 0 ? "" : `${weekdays()[g.weekday]} ${weektime(g.weektime)}`.trim();
}

const fieldNames: { [field: string]: Key } = {
  name: "frame.name",
  level: "frame.level",
  size: "groups.usual-size",
  weekday: "groups.every-week",
  weektime: "groups.at",
  under16: "groups.there-are-people-under-16",
  notes: "groups.notes",
};

/** fieldName is what the form calls a field of a group; null for one that nobody types. */
function fieldName([field = "", part]: Path, all: Groups, questions: Question[]): string | null {
  if (field === "conditions") return text(all.conditions.find((c) => c.id === part)?.name) || (part ?? null);
  if (field === "schools") return text(questions.find((q) => q.id === part)?.asks) || (part ?? null);
  const name = fieldNames[field];
  return name ? t(name) : null;
}

function GroupForm({ start, all }: { start: Group; all: Groups }) {
  const edited = useEdited(start, `group ${start.id}`);
  const { draft: group, setDraft: setGroup, changed } = edited;
  const [deleting, setDeleting] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const settings = useQuery(settingsQuery);
  const set = (part: Partial<Group>) => {
    setGroup({ ...group, ...part });
    store.reset();
  };
  const store = useMutation({
    mutationFn: (sent: Group) => post<Group>("/groups", sent),
    onError: readAgain(queries, groupsQuery.queryKey),
    onSuccess: async (stored, sent) => {
      if (start.id > 0) {
        edited.saved(sent, stored);
        queries.setQueryData<Groups>(groupsQuery.queryKey, (known) => known && withGroup(known, stored));
      }
      await queries.invalidateQueries({ queryKey: groupsQuery.queryKey });
      await queries.invalidateQueries({ queryKey: todayQuery.queryKey });
      if (start.id > 0) return;
      edited.leave();
      void navigate(`/groups/${stored.id}`);
    },
  });
  return (
    <Form
      onSubmit={(e) => {
        e.preventDefault();
        store.mutate(group);
      }}
    >
      <Row className="g-2">
        <Form.Group as={Col} md={6} controlId="group-name">
          <Form.Label>{t("frame.name")}</Form.Label>
          <Form.Control
            value={group.name}
            maxLength={200}
            autoFocus={start.id === 0}
            onChange={(e) => set({ name: e.target.value })}
          />
        </Form.Group>
        <Form.Group as={Col} xs={6} md={3} controlId="group-level">
          <Form.Label>{t("frame.level")}</Form.Label>
          <Form.Select value={group.level} onChange={(e) => set({ level: e.target.value })}>
            {group.level === "" && <option value="">{t("groups.not-set")}</option>}
            {all.levels.map((level) => (
              <option key={level} value={level}>
                {wordOf("level", level)}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group as={Col} xs={6} md={3} controlId="group-size">
          <Form.Label>{t("groups.usual-size")}</Form.Label>
          <Form.Control
            type="number"
            min={0}
            max={999}
            value={group.size || ""}
            onChange={(e) => set({ size: Number(e.target.value) })}
          />
        </Form.Group>
        <Form.Group as={Col} xs={6} md={3} controlId="group-day">
          <Form.Label>{t("groups.every-week")}</Form.Label>
          <Form.Select value={group.weekday} onChange={(e) => set({ weekday: Number(e.target.value) })}>
            <option value={-1}>{t("groups.no-fixed-day")}</option>
            {weekdays().map((day, i) => (
              <option key={day} value={i}>
                {day}
              </option>
            ))}
          </Form.Select>
        </Form.Group>
        <Form.Group as={Col} xs={6} md={3} controlId="group-time">
          <Form.Label>{t("groups.at")}</Form.Label>
          <TimeField value={group.weektime} onChange={(weektime) => set({ weektime })} />
        </Form.Group>
        <Col md={6} className="d-flex align-items-end py-2">
          <Form.Check
            id="under16"
            label={t("groups.there-are-people-under-16")}
            checked={group.under16}
            onChange={(e) => set({ under16: e.target.checked })}
          />
        </Col>
      </Row>
      <Conditions
        all={all.conditions}
        here={group.conditions}
        onChange={(conditions) => set({ conditions })}
      />
      <Form.Group className="mt-3" controlId="group-notes">
        <Form.Label>{t("groups.notes")}</Form.Label>
        <Form.Control
          as="textarea"
          rows={2}
          value={group.notes}
          onChange={(e) => set({ notes: e.target.value })}
        />
      </Form.Group>
      {settings.data && (
        <details className="mt-3" open={Object.keys(group.schools).length > 0}>
          <summary>{t("groups.where-this-group-differs")}</summary>
          <Choices
            questions={settings.data.questions ?? []}
            chosen={group.schools}
            otherwise={settings.data.schools}
            onChange={(schools) => set({ schools })}
          />
        </details>
      )}
      {/* the bar stays in sight, and with it what there is to be said before and after it is pressed */}
      <div className="mt-3 savebar">
        <EditedNotice
          what={t("groups.this-group")}
          error={store.error}
          edited={edited}
          nameOf={(path) => fieldName(path, all, settings.data?.questions ?? [])}
        />
        {store.isSuccess && !changed && <Alert variant="success">{t("frame.saved")}</Alert>}
        <Button type="submit" disabled={!changed || group.name.trim() === "" || store.isPending}>
          {start.id === 0 ? t("groups.add-the-group") : t("frame.save")}
        </Button>
        {start.id > 0 && (
          <Button variant="link" className="text-danger ms-2" onClick={() => setDeleting(true)}>
            {t("groups.delete-the-group")}
          </Button>
        )}
        {deleting && (
          <DeleteCard
            kind="group"
            id={start.id}
            name={start.name}
            to={`/groups/${all.groups.find((g) => g.id !== start.id)?.id ?? "new"}`}
            onClose={() => setDeleting(false)}
          />
        )}
      </div>
    </Form>
  );
}
