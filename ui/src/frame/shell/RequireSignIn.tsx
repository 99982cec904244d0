import { sessionQuery } from "../../wire/queries";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useEffect, useState } from "react";
import { Outlet } from "react-router";
import { signedOut } from "../../wire/api";
import { ErrorAlert } from "./ErrorAlert";
import { Loading } from "./Loading";
import { t } from "../../language/text";

const SignIn = lazy(async () => ({ default: (await import("./SignIn")).SignIn }));

/**
 * RequireSignIn stands before the teacher's views where the application is open to the local network. Where a session runs out
 * while a view is open, the view stays as it is behind the door.
 */
export function RequireSignIn() {
  const queries = useQueryClient();
  const session = useQuery(sessionQuery);
  const [been, setBeen] = useState(false);
  const inside = session.data?.signed_in === true;
  if (inside && !been) setBeen(true);
  useEffect(() => {
    const ask = () => void queries.invalidateQueries({ queryKey: sessionQuery.queryKey });
    window.addEventListener(signedOut, ask);
    return () => window.removeEventListener(signedOut, ask);
  }, [queries]);
  if (session.isPending) return <Loading what={t("frame.opening-it")} />;
  if (session.isError && !been)
    return <ErrorAlert error={session.error} retry={() => void session.refetch()} />;
  return (
    <>
      {been && <Outlet />}
      <Suspense>{session.data && !inside && <SignIn />}</Suspense>
    </>
  );
}
