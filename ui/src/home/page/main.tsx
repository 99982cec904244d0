import "./styles.scss";

import { createRoot } from "react-dom/client";
import type { HomePage } from "../../wire/contract";
import { unpack } from "../../wire/unpack";
import { AtHome } from "./AtHome";

/** The page has its practice in itself, and asks nothing of anybody. */
const page = await unpack<HomePage>(document.getElementById("practice")!.textContent.trim());
// As the device has it; a button turns it.
document.documentElement.dataset.bsTheme = matchMedia("(prefers-color-scheme: light)").matches
  ? "light"
  : "dark";
document.title = page.sheet.home.name;
createRoot(document.getElementById("root")!).render(<AtHome page={page} />);
