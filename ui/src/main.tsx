import "@fontsource/alegreya/500.css";
import "@fontsource/alegreya/700.css";
import "@fontsource/atkinson-hyperlegible/400.css";
import "@fontsource/atkinson-hyperlegible/700.css";
import "bootstrap/dist/css/bootstrap.min.css";
import "bootstrap-icons/font/bootstrap-icons.min.css";
import "./shared/theme.css";
import "./shared/lamps.css";
import "./shared/care.css";
import "./today/today.css";
import "./plan/plan.css";
import "./practices/practices.css";
import "./groups/groups.css";
import "./taught/taught.css";
import "./lead/lead.css";
import "./room/room.css";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter } from "react-router";
import { RouterProvider } from "react-router/dom";
import { Broken } from "./shared/Broken";
import { Door } from "./shared/Door";
import { GroupsView } from "./groups/GroupsView";
import { LeadView } from "./lead/LeadView";
import { TryView } from "./lead/TryView";
import { HomeCardView, RunningCardView } from "./plan/CardViews";
import { PlanView } from "./plan/PlanView";
import { OwnEditor } from "./practices/OwnEditor";
import { PracticesView } from "./practices/PracticesView";
import { RoomView } from "./room/RoomView";
import { SchoolView } from "./school/SchoolView";
import { play, tonesOf } from "./sound/tones";
import { keepTime, now, synchronize } from "./shared/clock";
import { Nowhere } from "./shared/Nowhere";
import { Framed } from "./shared/WayBack";
import { RecordView } from "./taught/RecordView";
import { SummaryView } from "./taught/SummaryView";
import { TaughtView } from "./taught/TaughtView";
import { TodayView } from "./today/TodayView";

const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      { path: "/room/:code", element: <RoomView /> },
      {
        element: <Door />,
        children: [
          { path: "/lead/:id", element: <LeadView /> },
          {
            element: <Framed />,
            children: [
              { path: "/", element: <TodayView /> },
              { path: "/plan/:id", element: <PlanView /> },
              { path: "/plan/:id/card", element: <RunningCardView /> },
              { path: "/plan/:id/home", element: <HomeCardView /> },
              { path: "/try/:id", element: <TryView /> },
              { path: "/practices", element: <PracticesView /> },
              { path: "/practices/:id", element: <PracticesView /> },
              { path: "/practices/:id/edit", element: <OwnEditor /> },
              { path: "/groups", element: <GroupsView /> },
              { path: "/groups/:id", element: <GroupsView /> },
              { path: "/school", element: <SchoolView /> },
              { path: "/taught", element: <TaughtView /> },
              { path: "/taught/year/:year", element: <SummaryView /> },
              { path: "/taught/:id", element: <RecordView /> },
              { path: "*", element: <Nowhere /> },
            ],
          },
        ],
      },
    ],
  },
]);

keepTime();

// For tests: what is heard of a score, to be rendered offline and held against its sheet; and this page's clock.
Object.assign(window, { lanternSound: { tonesOf, play }, lanternClock: { now, synchronize } });

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: 1 } } })}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
