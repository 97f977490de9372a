import { useDue } from "../../api/sky";
import { useAccount } from "../../app/session";
import { Hint } from "../../parts/Field";
import { Empty } from "../../parts/Empty";
import { FreshLine } from "../../parts/FreshLine";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { seasonParts } from "./seasonParts";
import { DueTable } from "./DueTable";

/** The schedule in its first form: what is due, and in which hours. */
export function Season() {
  const due = useDue();
  const account = useAccount();
  return (
    <Waiting of={due}>
      {(data) => (
        <Page
          sentence={data.sentence}
          act={
            data.lines.length > 0 && (
              <a href={`/api/accounts/${account.slug}/outings/ahead.ics`} download>
                As a calendar (iCalendar)
              </a>
            )
          }
        >
          <SubRule label="Parts of the season" parts={seasonParts(account)} />
          <FreshLine fresh={data.fresh} />
          {data.lines.length === 0 ? (
            <Empty>
              When the weather of an area passes the threshold of a disease, or its forecast does, and nothing
              on it covers, an application is proposed here: with its product, its reasons and its hours.
            </Empty>
          ) : (
            <Section title="Due and coming">
              <DueTable lines={data.lines} />
              {data.more > 0 && <Hint style={{ marginTop: 8 }}>{data.more} more are due.</Hint>}
            </Section>
          )}
          {data.without.length > 0 && (
            <Section title="In season, with nothing on the shelf that lists it">
              {data.without.map((x) => (
                <p key={x}>{x}</p>
              ))}
            </Section>
          )}
          {data.unknown.length > 0 && (
            <Section title="Not known">
              <Hint>Too few hours of weather are known to tell.</Hint>
              {data.unknown.map((x) => (
                <p key={x}>{x}</p>
              ))}
            </Section>
          )}
          <Hint style={{ marginTop: 24 }}>
            A model says when the weather suits a disease, no more. Scout before you spray; the label, local
            rules and licensed practice come first.
          </Hint>
        </Page>
      )}
    </Waiting>
  );
}
