import "./styles.scss";

import { createRoot } from "react-dom/client";
import type { HomePage } from "../../wire/contract";
import { carry, type Packed } from "../../wire/sounds";
import { unpack } from "../../wire/unpack";
import { AtHome } from "./AtHome";

// As the device has it; a button turns it.
document.documentElement.dataset.bsTheme = matchMedia("(prefers-color-scheme: light)").matches
  ? "light"
  : "dark";

const root = document.getElementById("root")!;

/** The page has its practice in itself, and asks nothing of anybody. */
async function open(): Promise<void> {
  const page = await unpack<HomePage>(document.getElementById("practice")!.textContent.trim());
  carry(
    JSON.parse(document.getElementById("recordings")!.textContent.trim() || "{}") as {
      [sum: string]: Packed;
    },
  );
  document.title = page.sheet.home.name;
  createRoot(root).render(<AtHome page={page} />);
}

open().catch(() => {
  root.innerHTML =
    "<main><h1>This page cannot be opened here.</h1><p>The browser is too old, or the file is incomplete. Open it in a newer browser, or ask for the file again.</p></main>";
});
