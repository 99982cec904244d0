import "./frame/styles.scss";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { Fragment, StrictMode, useSyncExternalStore } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, type RouteObject } from "react-router";
import { RouterProvider } from "react-router/dom";
import { Loading } from "./frame/shell/Loading";
import { NotFound } from "./frame/shell/NotFound";
import { RequireSignIn } from "./frame/shell/RequireSignIn";
import { Framed } from "./frame/shell/ReturnToClass";
import { ScreenStopped } from "./frame/shell/ScreenStopped";
import { chosen, followLanguage, readAll, speak, tag } from "./language/catalogue";
import { t } from "./language/text";
import { RoomWords, useWords } from "./player/say";
import { keepTime } from "./player/clock";

type Views = { [name: string]: unknown };

/** view is a route whose code is loaded when it is opened. */
function view<Module extends Views>(
  path: string,
  load: () => Promise<Module>,
  name: keyof Module,
): RouteObject {
  return {
    path,
    lazy: async () => {
      const [module] = await Promise.all([load(), path === "/" ? null : readAll()]);
      return { Component: module[name] as React.ComponentType };
    },
  };
}

const Opening = () => <Loading what={t("frame.opening-it")} />;

const routes = [
  {
    errorElement: <ScreenStopped />,
    hydrateFallbackElement: <Opening />,
    children: [
      view("/certificate", () => import("./frame/shell/CertificateView"), "CertificateView"),
      {
        element: <RequireSignIn />,
        children: [
          view("/remote/:id", () => import("./lead/RemoteView"), "RemoteView"),
          view("/lead/:id", () => import("./lead/LeadView"), "LeadView"),
          {
            element: <Framed />,
            children: [
              view("/", () => import("./today/TodayView"), "TodayView"),
              view("/plan/:id", () => import("./plan/PlanView"), "PlanView"),
              view("/plan/:id/card", () => import("./plan/CardViews"), "RunningCardView"),
              view("/plan/:id/text", () => import("./plan/TextView"), "TextView"),
              view("/plan/:id/home", () => import("./home/HomeView"), "HomeView"),
              view("/taught/:id/home", () => import("./home/HomeView"), "HomeView"),
              view("/home/:id", () => import("./home/HomeCardView"), "HomeCardView"),
              view("/rehearse", () => import("./rehearse/RehearseView"), "RehearseView"),
              view("/rehearse/:id", () => import("./rehearse/ReviewView"), "ReviewView"),
              view("/rehearse/:id/lead", () => import("./lead/RehearsalView"), "RehearsalView"),
              view("/try/:id", () => import("./lead/TryView"), "TryView"),
              view("/practices", () => import("./practices/PracticesView"), "PracticesView"),
              view("/practices/:id", () => import("./practices/PracticesView"), "PracticesView"),
              view("/practices/:id/edit", () => import("./practices/OwnEditor"), "OwnEditor"),
              view("/groups", () => import("./groups/GroupsView"), "GroupsView"),
              view("/groups/:id", () => import("./groups/GroupsView"), "GroupsView"),
              view("/programmes/:id", () => import("./programmes/ProgrammeView"), "ProgrammeView"),
              view("/keys", () => import("./keys/KeysView"), "KeysView"),
              view("/voices", () => import("./voices/VoicesView"), "VoicesView"),
              view("/voices/:id", () => import("./voices/VoiceView"), "VoiceView"),
              view("/school", () => import("./school/SchoolView"), "SchoolView"),
              view("/taught", () => import("./taught/TaughtView"), "TaughtView"),
              view("/taught/year/:year", () => import("./taught/SummaryView"), "SummaryView"),
              view("/taught/:id", () => import("./taught/RecordView"), "RecordView"),
              view("/help", () => import("./help/HelpView"), "HelpView"),
              view("/help/licences", () => import("./help/LicencesView"), "LicencesView"),
              view("/help/:page", () => import("./help/HelpView"), "HelpView"),
              { path: "*", element: <NotFound /> },
            ],
          },
        ],
      },
    ],
  },
];

/** Written is the screens in the language in use: all of them are drawn anew in another one. */
function Written({ router }: { router: ReturnType<typeof createBrowserRouter> }) {
  const language = useSyncExternalStore(followLanguage, tag);
  return (
    <RoomWords value={useWords(language)}>
      <Fragment key={language}>
        <RouterProvider router={router} />
      </Fragment>
    </RoomWords>
  );
}

keepTime();

// The first view is loaded once its language is known.
void speak(chosen()).then(() =>
  createRoot(document.getElementById("root")!).render(
    <StrictMode>
      <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: 1 } } })}>
        <Written router={createBrowserRouter(routes)} />
      </QueryClientProvider>
    </StrictMode>,
  ),
);
