import { Link } from "react-router";
import { useRounds } from "../../api/hooks";
import { useOutings } from "../../api/outings";
import { useAccount, useMay } from "../../app/session";
import { ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Facts } from "../../parts/Facts";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { Waiting } from "../../parts/Waiting";
import { RoundTable } from "./RoundTable";

/** The rounds: those under way, and those that are over. */
export function Rounds() {
  const account = useAccount();
  const rounds = useRounds();
  const outings = useOutings();
  const may = useMay("applicator");
  const begin = (
    <ButtonLink look="main" to={`/a/${account.slug}/reckon`}>
      Reckon a job
    </ButtonLink>
  );
  return (
    <Waiting of={rounds}>
      {(list) => {
        const open = list.filter((r) => r.status === "under_way");
        const over = list.filter((r) => r.status !== "under_way");
        const sentence = open.length
          ? `${open.length === 1 ? "One round is" : `${open.length} rounds are`} under way.`
          : "No round is under way.";
        return (
          <Page sentence={sentence} act={may && begin}>
            {list.length === 0 && (
              <Empty>
                A round begins with a reckoned job: its mix sheet takes you from the gloves to the book.
              </Empty>
            )}
            {outings.data && outings.data.length > 0 && (
              <Section
                title={
                  <>
                    <span>Outings</span>
                    <Link to={`/a/${account.slug}/round/outing/new`}>Another</Link>
                  </>
                }
              >
                <Facts
                  of={outings.data.map((o) => [
                    o.day,
                    <Link
                      key={o.id}
                      to={`/a/${account.slug}/round/outing/${o.id}`}
                    >{`${o.text} (${o.status_text})`}</Link>,
                  ])}
                />
              </Section>
            )}
            {open.length > 0 && (
              <Section title="Under way">
                <RoundTable rounds={open} />
              </Section>
            )}
            {over.length > 0 && (
              <Section title="Finished">
                <RoundTable rounds={over} />
              </Section>
            )}
          </Page>
        );
      }}
    </Waiting>
  );
}
