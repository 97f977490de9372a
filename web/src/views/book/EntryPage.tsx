import { useNavigate, useParams } from "react-router";
import { api, read } from "../../api/client";
import { useChange, useEntry } from "../../api/hooks";
import { useAccount } from "../../app/session";
import { say } from "../../app/toast";
import { Button, ButtonLink } from "../../parts/Button";
import { Facts } from "../../parts/Facts";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { RateRule } from "../../parts/RateRule";
import { Section } from "../../parts/Section";
import { Verdict } from "../../parts/Verdict";
import { Waiting } from "../../parts/Waiting";
import { jobToSearch } from "../reckon/state";

/** The entry's application once more: Reckon opens with it. */
function DoAgain({ entry }: { entry: number }) {
  const account = useAccount();
  const navigate = useNavigate();
  const again = useChange((path, entry_id: number) =>
    read(
      api.GET("/api/accounts/{account}/reckon/again/{entry_id}", { params: { path: { ...path, entry_id } } }),
    ),
  );
  return (
    <>
      <Button
        look="main"
        isDisabled={again.isPending}
        onPress={() =>
          again.mutate(entry, {
            onSuccess: ({ job, notes }) => {
              if (notes.length) say(notes.join(" "));
              void navigate(`/a/${account.slug}/reckon?${jobToSearch(job)}`);
            },
          })
        }
      >
        Do it again
      </Button>
      <Fault error={again.error} />
    </>
  );
}

/** One entry of the book. */
export function EntryPage() {
  const account = useAccount();
  const { id } = useParams();
  const entry = useEntry(Number(id));
  return (
    <Waiting of={entry}>
      {(e) => (
        <Page
          sentence={`${e.day}: ${e.product} on ${e.area}, ${e.actual}.`}
          act={
            <>
              {e.product_id !== null && <DoAgain entry={e.id} />}
              <Button onPress={() => window.print()}>Print</Button>
              <ButtonLink to={`/a/${account.slug}/book`}>All of the book</ButtonLink>
            </>
          }
        >
          <Section title="Against the label">
            <RateRule rule={e.rule} label="Rate really put down" text={e.actual} />
            <Verdict judgement={e.judgement} />
            {e.against.map((rule) => (
              <Notice key={rule} tone="stop" word="Against the label">
                {rule}
              </Notice>
            ))}
            {e.reason && <p>{`Why it was done all the same: ${e.reason}`}</p>}
          </Section>
          <Section title="What was done">
            <Facts
              of={[
                ["Product", `${e.product}, ${e.kind}`],
                ["Holds", e.contents],
                ["Group", e.group_code],
                ["For", [e.target, e.use].filter((x, i, all) => x && all.indexOf(x) === i).join("; ")],
                ["Lot", e.lot],
                ["Next by the label", e.again],
                ["Area", `${e.area}, ${e.treated} treated`],
                ["Planned", e.planned],
                ["Actual", e.actual],
                ["Label", e.label],
                ["Used", e.used],
                ["Spray", e.spray],
                [
                  "Machine",
                  `${e.machine}, ${e.loads} ${e.loads === 1 ? "load" : "loads"}, ${e.passes} ${e.passes === 1 ? "pass" : "passes"}`,
                ],
                ["Cost", e.cost],
                ["Wind", e.wind],
                ["Air", e.air],
                ["Looked at", e.looked],
                ["Note", e.note],
                ["By", e.by],
              ]}
            />
          </Section>
        </Page>
      )}
    </Waiting>
  );
}
