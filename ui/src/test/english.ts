import { write } from "../language/catalogue";

// Tests read the screens in English, without waiting for it.
const files = import.meta.glob<{ [key: string]: string }>(
  ["../../../language/en/*.json", "!../../../language/en/room.json", "!../../../language/en/*.about.json"],
  { import: "default", eager: true },
);

write({
  tag: "en",
  messages: Object.assign({}, ...Object.values(files)) as { [key: string]: string },
  whole: true,
});
