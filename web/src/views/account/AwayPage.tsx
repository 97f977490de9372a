import { useAway, usePutBack } from "../../api/away";
import type { Schemas } from "../../api/client";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { accountParts } from "./accountParts";

type Away = Schemas["AwayOut"];

const what: Record<Away["kind"], string> = {
  areas: "Area",
  products: "Product",
  machines: "Machine",
  vessels: "Measuring vessel",
  mixes: "Kept mix",
};

/** What was put away, to be put back. */
export function AwayPage() {
  const account = useAccount();
  const away = useAway();
  return (
    <Waiting of={away}>
      {(list) => (
        <Page
          sentence={
            list.length
              ? `${list.length === 1 ? "One thing was" : `${list.length} things were`} put away, and can be put back.`
              : "Nothing was put away."
          }
        >
          <SubRule label="Parts of the account" parts={accountParts(account)} />
          {list.length ? (
            <AwayList list={list} />
          ) : (
            <Empty>
              What you remove from the ground, the shelf or the kit is kept here. The book goes on telling of
              it, and it can be put back at any time.
            </Empty>
          )}
        </Page>
      )}
    </Waiting>
  );
}

function AwayList({ list }: { list: Away[] }) {
  const manages = useMay("manager");
  const applies = useMay("applicator");
  const putBack = usePutBack();
  return (
    <>
      <Fault error={putBack.error} />
      <Ledger>
        <thead>
          <tr>
            <th>Name</th>
            <th>What</th>
            <th className="wide">Put away</th>
            <th aria-label="Put back" />
          </tr>
        </thead>
        <tbody>
          {list.map((x) => (
            <tr key={`${x.kind} ${x.id}`}>
              <td>{x.name}</td>
              <td>{what[x.kind]}</td>
              <td className="wide day">{x.day}</td>
              <td className="figure">
                {(x.kind === "mixes" ? applies : manages) && (
                  <Button
                    look="quiet"
                    aria-label={`Put back ${x.name}`}
                    onPress={() => putBack.mutate(x, { onSuccess: () => say(`${x.name} is back.`) })}
                  >
                    Put back
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Ledger>
    </>
  );
}
