import "./help.css";
import { useQuery } from "@tanstack/react-query";
import Markdown, { type Components } from "react-markdown";
import { Link, NavLink, useParams } from "react-router";
import remarkGfm from "remark-gfm";
import { NotFound } from "../frame/shell/NotFound";
import { Shell } from "../frame/shell/Shell";
import { Loading } from "../frame/shell/Loading";
import { Message } from "../frame/shell/Message";
import { tag } from "../language/catalogue";
import { t } from "../language/text";

/** pages is the names of the pages of the manual, in the order in which they are read. */
const pages = [
  "first-class",
  "typing",
  "views",
  "keys",
  "by-hand",
  "listening",
  "retentions",
  "mixed-rooms",
  "home",
  "programmes",
  "voice",
  "rehearsal",
  "screens",
  "your-data",
];

/** texts loads each page of the manual by its path: those in English stand above the folders of other languages. */
const texts = import.meta.glob<string>(["../../../docs/manual/**/*.md", "!../../../docs/manual/README.md"], {
  query: "?raw",
  import: "default",
});

const pathOf = (tag: string, page: string) =>
  `../../../docs/manual/${tag === "en" ? "" : `${tag}/`}${page}.md`;

/** manual loads the manual in a language, or in English where it is not written in that one. */
async function manual(tag: string) {
  const language = pathOf(tag, pages[0]!) in texts ? tag : "en";
  const list = await Promise.all(pages.map((page) => texts[pathOf(language, page)]!()));
  return { language, pages: Object.fromEntries(pages.map((page, i) => [page, list[i]!])) };
}

/** A page's own heading is its title. */
const title = (page: string) => /^# (.*)$/m.exec(page)?.[1] ?? "";

/** HelpView is the manual for teachers. */
export function HelpView() {
  const name = useParams().page ?? "first-class";
  const language = tag();
  const loaded = useQuery({
    queryKey: ["manual", language],
    queryFn: () => manual(language),
    staleTime: Infinity,
  });
  if (!pages.includes(name)) return <NotFound />;
  return (
    <Shell view="help">
      {loaded.isPending && <Loading what={t("help.opening-the-manual")} />}
      {loaded.isError && <Message variant="danger">{t("help.the-manual-did-not-load")}</Message>}
      {loaded.data && (
        <div className="help" lang={loaded.data.language}>
          <nav aria-label={t("help.manual")}>
            {Object.entries(loaded.data.pages).map(([path, text]) => (
              <NavLink key={path} to={path === "first-class" ? "/help" : `/help/${path}`} end>
                {title(text)}
              </NavLink>
            ))}
            <Link to="/help/licences" lang={language}>
              {t("help.licences")}
            </Link>
          </nav>
          <article>
            <Markdown remarkPlugins={[remarkGfm]} components={components}>
              {loaded.data.pages[name]}
            </Markdown>
          </article>
        </div>
      )}
    </Shell>
  );
}

/** A link of the manual to another of its pages leads there in the program too. */
const components: Components = {
  a: ({ href = "", children }) => <Link to={`/help/${href.replace(/\.md$/, "")}`}>{children}</Link>,
  table: ({ children }) => <table className="table">{children}</table>,
};
