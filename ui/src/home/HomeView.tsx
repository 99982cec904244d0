import { homeOfferQuery } from "./queries";
import "./home.css";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { Alert } from "react-bootstrap";
import { Link, useLocation, useParams } from "react-router";
import { post, remove } from "../wire/api";
import type { Done, Home, HomeGive, HomeOffer } from "../wire/contract";
import { Shell } from "../frame/shell/Shell";
import { ErrorAlert } from "../frame/shell/ErrorAlert";
import { Loading } from "../frame/shell/Loading";
import { Given } from "../frame/dialogs/Given";
import { GiveForm } from "./GiveForm";
import { rich, t } from "../language/text";

const PageDialog = lazy(async () => ({ default: (await import("./PageDialog")).PageDialog }));
const SoundDialog = lazy(async () => ({ default: (await import("./SoundDialog")).SoundDialog }));

/** HomeView is where a teacher chooses what goes home from a plan or a class, and hands it out. */
export function HomeView() {
  const id = Number(useParams().id);
  const ofClass = useLocation().pathname.startsWith("/taught");
  const path = `/${ofClass ? "classes" : "plans"}/${id}/home`;
  const queries = useQueryClient();
  const [sounding, setSounding] = useState<Home | null>(null);
  const [voicing, setVoicing] = useState<Home | null>(null);
  const offer = useQuery(homeOfferQuery(path));
  const give = useMutation({
    mutationFn: (what: HomeGive) => post<HomeOffer>(path, what),
    onSuccess: (fresh) => queries.setQueryData(homeOfferQuery(path).queryKey, fresh),
  });
  const takeBack = useMutation({
    mutationFn: (home: number) => remove<Done>(`/homes/${home}`),
    onSettled: () => offer.refetch(),
  });
  return (
    <Shell view={ofClass ? "taught" : "plan"}>
      {offer.isPending && <Loading what={t("home.loading-what-can-go-home")} />}
      {offer.isError && <ErrorAlert error={offer.error} retry={() => void offer.refetch()} />}
      {offer.data && (
        <>
          <h1>{t("frame.home-practice")}</h1>
          <p className="text-secondary">
            {rich("home.from-2", {
              link: (
                <Link to={ofClass ? `/taught/${id}` : `/plan/${id}`}>
                  {offer.data.title || t("home.the-class")}
                </Link>
              ),
            })}
          </p>
          {takeBack.isError && <ErrorAlert error={takeBack.error} />}
          <Given
            given={offer.data.given}
            onTakeBack={takeBack.mutate}
            onSound={setSounding}
            onVoice={setVoicing}
          />
          <Suspense>
            {sounding && <SoundDialog home={sounding} onClose={() => setSounding(null)} />}
            {voicing && <PageDialog home={voicing} onClose={() => setVoicing(null)} />}
          </Suspense>
          {offer.data.given.length > 0 && <h2>{t("home.something-else")}</h2>}
          {offer.data.passages.length === 0 && offer.data.before.length === 0 ? (
            <Alert variant="light">{t("home.there-is-nothing-that-could-go", { ofClass })}</Alert>
          ) : (
            <GiveForm
              key={offer.data.given.length}
              path={path}
              offer={offer.data}
              give={give.mutate}
              pending={give.isPending}
              error={give.error}
            />
          )}
          {offer.data.given.length > 0 && (
            <p>
              <Link to={ofClass ? `/taught/${id}` : `/plan/${id}`}>
                {ofClass ? t("home.to-the-record") : t("frame.back-to-the-plan")}
              </Link>
            </p>
          )}
        </>
      )}
    </Shell>
  );
}
