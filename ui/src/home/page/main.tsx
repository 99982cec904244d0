import "./styles.scss";

import { createRoot } from "react-dom/client";
import type { HomePage } from "../../wire/contract";
import { carry, type Packed } from "../../wire/sounds";
import { unpack } from "../../wire/unpack";
import { RoomWords } from "../../player/say";
import { AtHome } from "./AtHome";
import { roomWords, speak, t } from "./words";

// As the device has it; a button turns it.
document.documentElement.dataset.bsTheme = matchMedia("(prefers-color-scheme: light)").matches
  ? "light"
  : "dark";

// Not even the language is known before the page is read.
speak(navigator.language.split("-")[0]!);

const root = document.getElementById("root")!;

/** The page has its practice in itself, and asks nothing of anybody. */
async function open(): Promise<void> {
  const page = await unpack<HomePage>(document.getElementById("practice")!.textContent.trim());
  carry(
    JSON.parse(document.getElementById("recordings")!.textContent.trim() || "{}") as {
      [sum: string]: Packed;
    },
  );
  speak(page.language);
  document.title = page.sheet.home.name;
  createRoot(root).render(
    <RoomWords value={roomWords()}>
      <AtHome page={page} />
    </RoomWords>,
  );
}

open().catch(() => {
  const [heading, advice] = [document.createElement("h1"), document.createElement("p")];
  heading.textContent = t("page.cannot-be-opened");
  advice.textContent = t("page.browser-too-old");
  root.replaceChildren(heading, advice);
});
