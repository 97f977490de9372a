import { Navigate, useParams } from "react-router";
import { lazy, Suspense } from "react";
import { Fault } from "../parts/Notice";
import { NothingHere } from "./ErrorPage";
import { useSession } from "./session";
import { Shell } from "./Shell";

const Door = lazy(() => import("../views/door/Door"));

/** Lets members of the account in; whoever is signed out signs in right here, and goes on where they were. */
export function Inside() {
  const { account } = useParams();
  const { data, error } = useSession();
  if (error) return <Fault error={error} />;
  if (!data) return null;
  if (!data.user)
    return (
      <Suspense>
        <Door here />
      </Suspense>
    );
  if (!data.accounts.some((c) => c.slug === account))
    return data.accounts.length ? <NothingHere /> : <Navigate to="/" replace />;
  return <Shell />;
}
