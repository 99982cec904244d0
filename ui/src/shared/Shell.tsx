import type { ReactNode } from "react";
import { Button, Container, Nav, Navbar } from "react-bootstrap";
import { Link, NavLink } from "react-router";
import { General } from "./care";
import { JustDeleted } from "./Deleting";
import { useLight } from "./light";

/** Shell is the frame of the views of the day: where one can go. */
export function Shell({ view, children }: { view: string; children: ReactNode }) {
  const [light, change] = useLight(view, "day");
  return (
    <>
      <Navbar className="shell" expand aria-label="Views">
        <Container fluid="xl">
          <Navbar.Brand as={Link} to="/">
            <i className="bi bi-lamp" aria-hidden /> Vast Lantern
          </Navbar.Brand>
          <Nav className="me-auto">
            <Nav.Link as={NavLink} to="/" end>
              Today
            </Nav.Link>
            <Nav.Link as={NavLink} to="/practices">
              Practices
            </Nav.Link>
            <Nav.Link as={NavLink} to="/groups">
              Groups
            </Nav.Link>
            <Nav.Link as={NavLink} to="/taught">
              Taught
            </Nav.Link>
            <Nav.Link as={NavLink} to="/school">
              School
            </Nav.Link>
          </Nav>
          <General />
          <Button variant="link" className="quiet" onClick={change}>
            <i className={light === "day" ? "bi bi-moon" : "bi bi-sun"} aria-hidden />{" "}
            {light === "day" ? "Night" : "Day"}
          </Button>
        </Container>
      </Navbar>
      <Container as="main" fluid="xl" className="py-3">
        <JustDeleted />
        {children}
      </Container>
    </>
  );
}
