import "./help.css";
import Markdown, { type Components } from "react-markdown";
import { Link, NavLink, useParams } from "react-router";
import remarkGfm from "remark-gfm";
import { NotFound } from "../frame/shell/NotFound";
import { Shell } from "../frame/shell/Shell";
import firstClass from "../../../docs/manual/first-class.md?raw";
import home from "../../../docs/manual/home.md?raw";
import keys from "../../../docs/manual/keys.md?raw";
import byHand from "../../../docs/manual/by-hand.md?raw";
import mixed from "../../../docs/manual/mixed-rooms.md?raw";
import retentions from "../../../docs/manual/retentions.md?raw";
import screens from "../../../docs/manual/screens.md?raw";
import typing from "../../../docs/manual/typing.md?raw";
import views from "../../../docs/manual/views.md?raw";
import programmes from "../../../docs/manual/programmes.md?raw";
import rehearsal from "../../../docs/manual/rehearsal.md?raw";
import voice from "../../../docs/manual/voice.md?raw";
import yourData from "../../../docs/manual/your-data.md?raw";
import { t } from "../language/text";

/** The pages of the manual, in the order in which they are read. */
const pages: { [name: string]: string } = {
  "first-class": firstClass,
  typing,
  views,
  keys,
  "by-hand": byHand,
  retentions,
  "mixed-rooms": mixed,
  home,
  programmes,
  voice,
  rehearsal,
  screens,
  "your-data": yourData,
};

/** A page's own heading is its title. */
const title = (page: string) => /^# (.*)$/m.exec(page)?.[1] ?? "";

/** HelpView is the manual for teachers. */
export function HelpView() {
  const name = useParams().page ?? "first-class";
  const page = pages[name];
  if (page === undefined) return <NotFound />;
  return (
    <Shell view="help">
      <div className="help">
        <nav aria-label={t("help.manual")}>
          {Object.entries(pages).map(([path, text]) => (
            <NavLink key={path} to={path === "first-class" ? "/help" : `/help/${path}`} end>
              {title(text)}
            </NavLink>
          ))}
          <Link to="/help/licences">{t("help.licences")}</Link>
        </nav>
        <article>
          <Markdown remarkPlugins={[remarkGfm]} components={components}>
            {page}
          </Markdown>
        </article>
      </div>
    </Shell>
  );
}

/** A link of the manual to another of its pages leads there in the program too. */
const components: Components = {
  a: ({ href = "", children }) => <Link to={`/help/${href.replace(/\.md$/, "")}`}>{children}</Link>,
  table: ({ children }) => <table className="table">{children}</table>,
};
