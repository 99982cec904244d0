import lamp from "bootstrap-icons/icons/lamp.svg?raw";
import moon from "bootstrap-icons/icons/moon.svg?raw";
import sun from "bootstrap-icons/icons/sun.svg?raw";
import type { ReactNode } from "react";
import { Button, Container } from "react-bootstrap";
import { Link, NavLink } from "react-router";
import { GeneralCare } from "../frame/care/GeneralCare";
import { Icon } from "../frame/shell/Icon";
import { useLight } from "../frame/shell/light";
import { t } from "../language/text";

/** Shell is the frame of the views that this page has. */
export function Shell({ view, children }: { view: string; children: ReactNode }) {
  const [light, change] = useLight(view, "day");
  return (
    <>
      <nav className="navbar navbar-expand shell" aria-label={t("frame.views")}>
        <Container fluid="xl">
          <Link className="navbar-brand" to="/">
            <Icon of={lamp} /> {t("frame.vast-lantern")}
          </Link>
          <div className="navbar-nav me-auto">
            <NavLink className="nav-link" to="/" end>
              {t("rehearse.try-it")}
            </NavLink>
            <NavLink className="nav-link" to="/rehearse">
              {t("frame.rehearse")}
            </NavLink>
          </div>
          <GeneralCare />
          <Button variant="link" className="quiet" onClick={change}>
            <Icon of={light === "day" ? moon : sun} />{" "}
            {light === "day" ? t("frame.night-light") : t("frame.day-light")}
          </Button>
        </Container>
      </nav>
      <Container as="main" fluid="xl" className="py-3">
        {children}
      </Container>
    </>
  );
}
