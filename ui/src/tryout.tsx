import "./frame/styles.scss";

import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { Fragment, StrictMode, useSyncExternalStore } from "react";
import { createRoot } from "react-dom/client";
import { createHashRouter } from "react-router";
import { RouterProvider } from "react-router/dom";
import { NotFound } from "./frame/shell/NotFound";
import { Framed } from "./frame/shell/ReturnToClass";
import { ScreenStopped } from "./frame/shell/ScreenStopped";
import { chosen, followLanguage, readAll, speak, tag } from "./language/catalogue";
import { LeadView } from "./lead/LeadView";
import { RehearsalView } from "./lead/RehearsalView";
import { keepTime } from "./player/clock";
import { RoomWords, useWords } from "./player/say";
import { RehearseView } from "./rehearse/RehearseView";
import { ReviewView } from "./rehearse/ReviewView";
import { answerHere } from "./tryout/answers";
import { TryoutView } from "./tryout/TryoutView";

// The page to try the application with: the rehearsal and a sample class, without any server. Its addresses stand after #, as a
// file has only one.

const router = createHashRouter([
  {
    errorElement: <ScreenStopped />,
    children: [
      { path: "/lead/:id", element: <LeadView /> },
      {
        element: <Framed />,
        children: [
          { path: "/", element: <TryoutView /> },
          { path: "/rehearse", element: <RehearseView /> },
          { path: "/rehearse/:id", element: <ReviewView /> },
          { path: "/rehearse/:id/lead", element: <RehearsalView /> },
          { path: "*", element: <NotFound /> },
        ],
      },
    ],
  },
]);

/** Written is the screens in the language in use: all of them are drawn anew in another one. */
function Written() {
  const language = useSyncExternalStore(followLanguage, tag);
  return (
    <RoomWords value={useWords(language)}>
      <Fragment key={language}>
        <RouterProvider router={router} />
      </Fragment>
    </RoomWords>
  );
}

answerHere();
keepTime();

void speak(chosen())
  .then(readAll)
  .then(() =>
    createRoot(document.getElementById("root")!).render(
      <StrictMode>
        <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: 1 } } })}>
          <Written />
        </QueryClientProvider>
      </StrictMode>,
    ),
  );
