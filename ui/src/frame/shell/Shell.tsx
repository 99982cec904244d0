import lamp from "bootstrap-icons/icons/lamp.svg?raw";
import moon from "bootstrap-icons/icons/moon.svg?raw";
import sun from "bootstrap-icons/icons/sun.svg?raw";
import type { ReactNode } from "react";
import { Button, Container } from "react-bootstrap";
import { Link, NavLink } from "react-router";
import { GeneralCare } from "../care/GeneralCare";
import { Icon } from "./Icon";
import { JustDeleted } from "../dialogs/BringBack";
import { useLight } from "./light";

const views = [
  ["/", "Today"],
  ["/practices", "Practices"],
  ["/groups", "Groups"],
  ["/taught", "Taught"],
  ["/rehearse", "Rehearse"],
  ["/school", "School"],
  ["/help", "Help"],
] as const;

/** Shell is the frame of the views of the day: where one can go. */
export function Shell({ view, children }: { view: string; children: ReactNode }) {
  const [light, change] = useLight(view, "day");
  return (
    <>
      <nav className="navbar navbar-expand shell" aria-label="Views">
        <Container fluid="xl">
          <Link className="navbar-brand" to="/">
            <Icon of={lamp} /> Vast Lantern
          </Link>
          <div className="navbar-nav me-auto">
            {views.map(([path, name]) => (
              <NavLink key={path} className="nav-link" to={path} end={path === "/"}>
                {name}
              </NavLink>
            ))}
          </div>
          <GeneralCare />
          <Button variant="link" className="quiet" onClick={change}>
            <Icon of={light === "day" ? moon : sun} /> {light === "day" ? "Night" : "Day"}
          </Button>
        </Container>
      </nav>
      <Container as="main" fluid="xl" className="py-3">
        <JustDeleted />
        {children}
      </Container>
    </>
  );
}
