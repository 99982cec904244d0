import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Button, Form, InputGroup } from "react-bootstrap";
import { get } from "../wire/api";
import type { Book } from "../wire/contract";

/** AddPassage adds what is written the short way, and keeps it where it was not understood. */
export function AddPassage({
  first,
  onAdd,
}: {
  first: boolean;
  onAdd: (text: string) => Promise<string | null>;
}) {
  const [typed, setTyped] = useState("");
  const [problem, setProblem] = useState("");
  const practices = useQuery({
    queryKey: ["practices", 0],
    queryFn: () => get<Book>("/practices"),
    staleTime: Infinity,
  });
  const add = async () => {
    const why = await onAdd(typed);
    setProblem(why ?? "Another change was being made. Press Add once more.");
    if (why === "") setTyped("");
  };
  return (
    <Form
      className="mt-2"
      onSubmit={(e) => {
        e.preventDefault();
        void add();
      }}
    >
      <InputGroup>
        <InputGroup.Text as="label" htmlFor="add">
          Add
        </InputGroup.Text>
        <Form.Control
          id="add"
          autoFocus={first}
          list="practices"
          autoComplete="off"
          placeholder="nadi 4:4:8 x6 @50   ·   talk 1m seat and spine   ·   rest 2m"
          value={typed}
          isInvalid={problem !== ""}
          onChange={(e) => {
            setTyped(e.target.value);
            setProblem("");
          }}
        />
        <Button type="submit" variant="outline-primary">
          Add
        </Button>
        <Form.Control.Feedback type="invalid">{problem}</Form.Control.Feedback>
      </InputGroup>
      <datalist id="practices">
        <option value="talk 1m ">a talk</option>
        <option value="rest 2m">natural breath</option>
        {practices.data?.practices.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </datalist>
    </Form>
  );
}
