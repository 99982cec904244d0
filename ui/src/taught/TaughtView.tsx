import { groupsQuery, practicesQuery } from "../wire/queries";
import "./taught.css";
import { useInfiniteQuery, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Dropdown, Form, Table } from "react-bootstrap";
import { Link, useSearchParams } from "react-router";
import { get } from "../wire/api";
import { now } from "../player/clock";
import { saveFile } from "../wire/download";
import type { Found } from "../wire/contract";
import { DeletedLately } from "../frame/dialogs/BringBack";
import { Shell } from "../frame/shell/Shell";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Filled } from "../frame/shell/Filled";
import filled from "../frame/filled/taught.webp";
import { Progress } from "../frame/shell/Progress";
import { Loading } from "../frame/shell/Loading";
import { clock, day, timeOfDay } from "../player/format";
import { failureText, rich, t } from "../language/text";

/** TaughtView lists the classes that were led. What is searched stands in the address, so that it can be kept. */
export function TaughtView() {
  const [params, setAsked] = useSearchParams();
  const search = params.toString();
  const classes = useInfiniteQuery({
    queryKey: ["classes", search],
    queryFn: ({ pageParam }) => get<Found>(`/classes?${search}&skip=${pageParam}`),
    initialPageParam: 0,
    getNextPageParam: (last, all) =>
      last.more ? all.reduce((n, page) => n + page.classes.length, 0) : undefined,
    placeholderData: (before) => before, // the list stays while the next one comes
    refetchInterval: (query) => ((query.state.data?.pages[0]?.preparing ?? 0) > 0 ? 500 : false),
  });
  const list = classes.data?.pages.flatMap((page) => page.classes) ?? [];
  const set = (field: string, value: string) => {
    setAsked(
      (now) => {
        if (value === "") now.delete(field);
        else now.set(field, value);
        return now;
      },
      { replace: true },
    );
  };
  return (
    <Shell view="taught">
      <div className="d-flex justify-content-between align-items-start gap-2">
        <h1>{t("taught.taught")}</h1>
        <Files search={search} none={list.length === 0} />
      </div>
      <Filters params={params} set={set} onClear={() => setAsked({}, { replace: true })} />
      {classes.isPending && <Loading what={t("taught.loading-the-classes")} />}
      {classes.isError && <ErrorAlert error={classes.error} retry={() => void classes.refetch()} />}
      <Working left={classes.data?.pages[0]?.preparing ?? 0} />
      {classes.data && list.length === 0 && (
        <p>
          {search === "" ? (
            <>
              {rich("taught.no-classes-yet-each-class", {
                link: <Link to="/">{t("frame.go-to-today")}</Link>,
              })}
            </>
          ) : (
            t("taught.no-classes-match-try-fewer-words")
          )}
        </p>
      )}
      {classes.data && list.length === 0 && search === "" && (
        <Filled picture={filled} says={t("taught.every-class-as-planned")} />
      )}
      {list.length > 0 && (
        <Table hover responsive>
          <thead>
            <tr>
              <th>{t("taught.when")}</th>
              <th>{t("frame.class")}</th>
              <th>{t("frame.group")}</th>
              <th className="d-none d-md-table-cell">{t("frame.practices")}</th>
              <th className="text-end">{t("taught.length")}</th>
            </tr>
          </thead>
          <tbody>
            {list.map((c) => (
              <tr key={c.id}>
                <td className="when">
                  {day(c.started_ms)}, {timeOfDay(c.started_ms)}
                </td>
                <td>
                  <Link to={c.running ? `/lead/${c.id}` : `/taught/${c.id}`}>
                    {c.title || t("frame.untitled")}
                  </Link>
                  {c.running && t("taught.being-led")}
                  {c.eased && <small className="text-secondary"> {t("taught.eased")}</small>}
                </td>
                <td>{c.group?.name}</td>
                <td className="text-secondary d-none d-md-table-cell">{c.passages.join(" · ")}</td>
                <td className="text-end">{clock(c.length_ms)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {classes.hasNextPage && (
        <Button
          variant="outline-primary"
          disabled={classes.isFetchingNextPage}
          onClick={() => void classes.fetchNextPage()}
        >
          {t("taught.earlier-classes")}
        </Button>
      )}
      <DeletedLately kinds={["class"]} />
    </Shell>
  );
}

/** Working tells, as after an update, how far the list is from being whole. */
function Working({ left }: { left: number }) {
  const [most, setMost] = useState(left);
  if (left > most) setMost(left);
  if (left === 0) return null;
  return (
    <div className="mb-3">
      <p className="mb-1" role="status">
        {t("taught.the-list-is-being-prepared", { left })}
      </p>
      <Progress done={1 - left / most} of={t("taught.how-much-of-the-list")} />
    </div>
  );
}

/** Files is what is listed as files, and the summary of a year on paper. */
function Files({ search, none }: { search: string; none: boolean }) {
  const save = useMutation({ mutationFn: (path: string) => saveFile(`/classes/${path}?${search}`) });
  return (
    <div className="text-end">
      <Dropdown align="end">
        <Dropdown.Toggle variant="outline-secondary" disabled={save.isPending}>
          {save.isPending ? t("taught.writing") : t("taught.files-and-paper")}
        </Dropdown.Toggle>
        <Dropdown.Menu>
          <Dropdown.Header>
            {search === "" ? t("taught.all-classes") : t("taught.the-classes-of-this-search")}
          </Dropdown.Header>
          <Dropdown.Item disabled={none} onClick={() => save.mutate("table")}>
            {t("taught.one-row-a-passage-csv")}
          </Dropdown.Item>
          <Dropdown.Item disabled={none} onClick={() => save.mutate("file")}>
            {t("taught.everything-json")}
          </Dropdown.Item>
          <Dropdown.Divider />
          <Dropdown.Item as={Link} to={`/taught/year/${new Date(now()).getFullYear()}`}>
            {t("taught.summary-of-a-year")}
          </Dropdown.Item>
        </Dropdown.Menu>
      </Dropdown>
      {save.isError && <small className="text-danger">{failureText(save.error)}</small>}
    </div>
  );
}

type FiltersProps = {
  params: URLSearchParams;
  set: (field: string, value: string) => void;
  onClear: () => void;
};

function Filters({ params, set, onClear }: FiltersProps) {
  const groups = useQuery(groupsQuery);
  const book = useQuery(practicesQuery(0));
  const value = (field: string) => params.get(field) ?? "";
  return (
    <Form className="asked" role="search" onSubmit={(e) => e.preventDefault()}>
      <Form.Control
        type="search"
        aria-label={t("taught.words-in-titles-notes-and-remarks")}
        placeholder={t("taught.words-in-titles-and-notes")}
        value={value("words")}
        onChange={(e) => set("words", e.target.value)}
      />
      <Form.Select
        aria-label={t("frame.group")}
        value={value("group")}
        onChange={(e) => set("group", e.target.value)}
      >
        <option value="">{t("taught.every-group")}</option>
        {groups.data?.groups.map((g) => (
          <option key={g.id} value={g.id}>
            {g.name}
          </option>
        ))}
      </Form.Select>
      <Form.Select
        aria-label={t("taught.practice")}
        value={value("practice")}
        onChange={(e) => set("practice", e.target.value)}
      >
        <option value="">{t("taught.every-practice")}</option>
        {book.data?.practices.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </Form.Select>
      <label>
        {t("taught.from")}{" "}
        <Form.Control type="date" value={value("from")} onChange={(e) => set("from", e.target.value)} />
      </label>
      <label>
        {t("taught.to")}{" "}
        <Form.Control type="date" value={value("to")} onChange={(e) => set("to", e.target.value)} />
      </label>
      <Form.Check
        id="eased"
        label={t("taught.eased-2")}
        checked={value("eased") === "true"}
        onChange={(e) => set("eased", e.target.checked ? "true" : "")}
      />
      {params.size > 0 && (
        <Button variant="link" size="sm" onClick={onClear}>
          {t("taught.all-classes-2")}
        </Button>
      )}
    </Form>
  );
}
