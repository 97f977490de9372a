import { Link, useParams } from "react-router";
import styled from "styled-components";
import { useSitePage } from "../../api/outings";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Facts } from "../../parts/Facts";
import { Page } from "../../parts/Page";
import { Section, Stack } from "../../parts/Section";
import { Waiting } from "../../parts/Waiting";
import { dated } from "../../parts/days";

const List = styled.ul`
  li {
    display: grid;
    grid-template-columns: 108px minmax(0, 1fr);
    gap: 0 16px;
    padding: 6px 0;
    border-bottom: 1px solid ${t.hair};
  }
  li[data-skipped] {
    color: ${t.soft};
  }
  ${t.phone} {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
  }
`;
const Lines = styled.ul`
  li {
    padding: 6px 0;
    border-bottom: 1px solid ${t.hair};
  }
`;

/** A site on a page: what to know of it, what is due there, what went down, and what was skipped and why. */
export function SitePage() {
  const account = useAccount();
  const may = useMay("applicator");
  const found = useSitePage(Number(useParams().id));
  const at = `/a/${account.slug}`;
  return (
    <Waiting of={found}>
      {({ about, year, due, past, outings }) => (
        <Page
          sentence={`${about.name}: ${due.length ? `${due.length} due or coming` : "nothing is due"}.`}
          act={
            may &&
            due.length > 0 && (
              <ButtonLink look="main" to={`${at}/round/outing/new?site=${about.id}`}>
                Plan an outing there
              </ButtonLink>
            )
          }
          margin={
            <>
              <Section title="Before you go">
                <Stack>
                  <Facts
                    of={[
                      ["Address", about.address],
                      ["Ask for", about.contact],
                      ["Getting in", about.gate],
                      ["Water for tanks", about.water],
                      ["Must be told", about.tell],
                      ["Agreed", about.agreed],
                      ["Route", year.route],
                    ]}
                  />
                  <Link to={`${at}/account/sites`}>Change what is known of it</Link>
                </Stack>
              </Section>
              <Section title="On paper">
                <p>
                  <Link to={`${at}/book/records?site_id=${about.id}`}>Records of this site</Link>
                </p>
              </Section>
            </>
          }
        >
          <Section title="Due and coming">
            {due.length ? (
              <Lines>
                {due.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </Lines>
            ) : (
              <Empty>Nothing is due here. What comes is in Season.</Empty>
            )}
          </Section>
          {outings.length > 0 && (
            <Section title="Outings">
              <List>
                {outings.map((o) => (
                  <li key={o.id}>
                    <span>{o.day}</span>
                    <span>
                      <Link to={`${at}/round/outing/${o.id}`}>{o.text}</Link> ({o.status_text})
                    </span>
                  </li>
                ))}
              </List>
            </Section>
          )}
          <Section
            title={
              year.turns ? `This year: ${year.done} of ${year.turns} turns done` : "What happened this year"
            }
          >
            {past.length ? (
              <List>
                {past.map((x) => (
                  <li key={`${x.on} ${x.text}`} data-skipped={x.skipped || undefined}>
                    <span>{dated(x.on)}</span>
                    <span>{x.text}</span>
                  </li>
                ))}
              </List>
            ) : (
              <Empty>Nothing went down here this year, and nothing was skipped.</Empty>
            )}
          </Section>
        </Page>
      )}
    </Waiting>
  );
}
