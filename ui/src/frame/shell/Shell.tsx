import lamp from "bootstrap-icons/icons/lamp.svg?raw";
import moon from "bootstrap-icons/icons/moon.svg?raw";
import sun from "bootstrap-icons/icons/sun.svg?raw";
import type { ReactNode } from "react";
import { Button, Container } from "react-bootstrap";
import { Link, NavLink } from "react-router";
import { GeneralCare } from "../care/GeneralCare";
import { Icon } from "./Icon";
import { HeldNotice } from "./HeldNotice";
import { JustDeleted } from "../dialogs/BringBack";
import { useLight } from "./light";
import { useHold } from "./useHold";
import { useSendKept } from "./useSendKept";
import { t } from "../../language/text";

const views = () =>
  [
    ["/", t("frame.today")],
    ["/practices", t("frame.practices")],
    ["/groups", t("frame.groups")],
    ["/taught", t("frame.taught")],
    ["/rehearse", t("frame.rehearse")],
    ["/school", t("frame.school")],
    ["/help", t("frame.help")],
  ] as const;

/** Shell is the frame of the views of the day: where one can go. */
export function Shell({ view, children }: { view: string; children: ReactNode }) {
  const [light, change] = useLight(view, "day");
  useSendKept();
  useHold();
  return (
    <>
      <nav className="navbar navbar-expand shell" aria-label={t("frame.views")}>
        <Container fluid="xl">
          <Link className="navbar-brand" to="/">
            <Icon of={lamp} /> {t("frame.vast-lantern")}
          </Link>
          <div className="navbar-nav me-auto">
            {views().map(([path, name]) => (
              <NavLink key={path} className="nav-link" to={path} end={path === "/"}>
                {name}
              </NavLink>
            ))}
          </div>
          <GeneralCare />
          <Button variant="link" className="quiet" onClick={change}>
            <Icon of={light === "day" ? moon : sun} />{" "}
            {light === "day" ? t("frame.night-light") : t("frame.day-light")}
          </Button>
        </Container>
      </nav>
      <Container as="main" fluid="xl" className="py-3">
        <HeldNotice />
        <JustDeleted />
        {children}
      </Container>
    </>
  );
}
