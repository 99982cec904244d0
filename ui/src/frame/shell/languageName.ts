const names: { [tag: string]: string } = {
  en: "English",
  de: "Deutsch",
  es: "Español",
  fr: "Français",
  pt: "Português",
};

/** languageName is a language as those who speak it call it. */
export function languageName(tag: string): string {
  return names[tag] ?? tag;
}
