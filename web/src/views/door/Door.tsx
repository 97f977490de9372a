import { lazy, Suspense, useState } from "react";
import { Navigate } from "react-router";
import { useLookRound, useSession } from "../../app/session";
import { Button } from "../../parts/Button";
import { Fault } from "../../parts/Notice";
import { Bar } from "../../parts/Section";
import { DoorLayout } from "./DoorLayout";
import { SignInForm } from "./SignInForm";

const FoundForm = lazy(() => import("./FoundForm"));
const ForgottenForm = lazy(() => import("./ForgottenForm"));
const forms = { in: SignInForm, start: FoundForm, forgotten: ForgottenForm };
const words = { in: "Sign in instead", start: "Start here", forgotten: "Forgotten your password?" };
type Way = keyof typeof forms;

/** The way in: sign in, or start here. With `here`, one goes on where one was. */
export default function Door({ here = false }: { here?: boolean }) {
  const { data, error, isPending } = useSession();
  const round = useLookRound();
  const [way, setWay] = useState<Way>(() => (location.search === "?start" ? "start" : "in"));
  if (!here && data?.user && data.accounts[0])
    return <Navigate to={`/a/${data.accounts[0].slug}/${way === "start" ? "start" : "today"}`} replace />;
  const Shown = forms[way];
  const others = (["in", "start", "forgotten"] as const).filter(
    (w) => w !== way && (w !== "start" || data?.founding),
  );
  return (
    <DoorLayout>
      {error && <Fault error={error} />}
      <Suspense>{!isPending && <Shown />}</Suspense>
      <Fault error={round.error} />
      <Bar>
        {data?.sample && !here && (
          <Button isDisabled={round.isPending} onPress={() => round.mutate()}>
            Look round a sample account
          </Button>
        )}
        {others.map((w) => (
          <Button key={w} look="quiet" onPress={() => setWay(w)}>
            {words[w]}
          </Button>
        ))}
      </Bar>
    </DoorLayout>
  );
}
