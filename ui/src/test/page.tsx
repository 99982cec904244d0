import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { cleanup, configure, render } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { ReactElement } from "react";
import { MemoryRouter, Route, Routes } from "react-router";
import { vi } from "vitest";

// A busy machine takes its time: what is waited for comes, or the test is wrong.
configure({ asyncUtilTimeout: 20_000 });

/** Asked is what a page asked of the application, and what it sent. */
export type Asked = { method: string; path: string; body: unknown };

/** Answers is what the application answers, by method and path. */
export type Answers = { [question: string]: unknown };

/** At is the address of a view, and its path with the names of what stands in it: /taught/7 and /taught/:id. */
export type At = { address: string; path: string };

/** page shows a component as a page would, with an application that gives these answers, and notes what was asked of it. */
export function page(element: ReactElement, answers: Answers = {}, at: At = { address: "/", path: "/" }) {
  cleanup();
  const asked: Asked[] = [];
  vi.stubGlobal("fetch", (url: string, init: RequestInit) => {
    const path = url.replace(/^\/api/, "");
    const body: unknown = init.body === undefined ? undefined : JSON.parse(init.body as string);
    asked.push({ method: init.method ?? "GET", path, body });
    const answer = answers[`${init.method} ${path}`];
    if (answer === undefined)
      return Promise.resolve(Response.json({ say: { id: "web.nothing-here" } }, { status: 404 }));
    return Promise.resolve(Response.json(answer));
  });
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const shown = (of: ReactElement) => (
    <QueryClientProvider client={queries}>
      <MemoryRouter initialEntries={[at.address]}>
        <Routes>
          <Route path={at.path} element={of} />
          <Route path="*" element={null} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>
  );
  const rendered = render(shown(element));
  return {
    ...rendered,
    user: userEvent.setup(),
    asked,
    again: (of: ReactElement) => rendered.rerender(shown(of)),
  };
}
