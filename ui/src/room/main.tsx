import "./styles.scss";

import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { keepTime } from "../player/clock";
import { RoomView } from "./RoomView";

keepTime();

/** The room's page is a page of its own, without what only the teacher's views need: phones load it in a hall. */
const code = decodeURIComponent(location.pathname.split("/")[2] ?? "");

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <RoomView code={code} />
  </StrictMode>,
);
