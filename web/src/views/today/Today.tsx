import { lazy, Suspense } from "react";
import { Link, useNavigate } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useToday } from "../../api/hooks";
import { EVERYTHING, useTakeOuting, useWeek, type Week } from "../../api/outings";
import { useAccount, useMay } from "../../app/session";
import { t } from "../../app/theme";
import { Button, ButtonLink } from "../../parts/Button";
import { Facts } from "../../parts/Facts";
import { FreshLine } from "../../parts/FreshLine";
import { Findings } from "../../parts/Findings";
import { HowNow } from "../../parts/HowNow";
import { Locks } from "../../parts/Locks";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { Tasks } from "../../parts/Tasks";
import { Waiting } from "../../parts/Waiting";
import { WeekPicture } from "../../parts/WeekPicture";
import { ActList } from "../outing/ActList";
import { LeftList } from "../outing/LeftList";
import { DueTable } from "../season/DueTable";
import { RoundTable } from "../round/RoundTable";

const BookTable = lazy(async () => ({ default: (await import("../book/BookTable")).BookTable }));

const Steps = styled.ol`
  counter-reset: step;
  max-width: 640px;
  li {
    counter-increment: step;
    display: grid;
    grid-template-columns: 36px 1fr max-content;
    align-items: baseline;
    padding: 12px 0;
    border-bottom: 1px solid ${t.hair};
  }
  li::before {
    content: counter(step);
    font: 500 ${t.s18} ${t.serif};
    color: ${t.soft};
  }
  li[data-done]::before {
    content: "✓";
    color: ${t.accent};
  }
  li[data-done] {
    color: ${t.soft};
  }
`;

function Setup({ steps }: { steps: Schemas["SetupStepOut"][] }) {
  const account = useAccount();
  return (
    <Section title="Setting up">
      <Steps>
        {steps.map((s) => (
          <li key={s.key} data-done={s.done || undefined}>
            <span>{s.text}</span>
            {s.done ? <span>done</span> : <Link to={`/a/${account.slug}/${s.to}`}>Do it</Link>}
          </li>
        ))}
      </Steps>
    </Section>
  );
}

/** The week in a picture, and the next outing as one line an act. */
function Outlook({ week }: { week: Week }) {
  const account = useAccount();
  const next = week.next;
  return (
    <>
      <Section title="The next seven days">
        <WeekPicture week={week} />
        {week.more > 0 && (
          <p>
            <Link to={`/a/${account.slug}/season/sites`}>{`${week.more} more sites`}</Link>
          </p>
        )}
      </Section>
      {week.open.map((o) => (
        <Section
          key={o.id}
          title={<Link to={`/a/${account.slug}/round/outing/${o.id}`}>{`Outing: ${o.day}`}</Link>}
        >
          <p>{o.text}</p>
        </Section>
      ))}
      {next && (
        <Section
          title={
            <>
              <span>Next outing</span>
              <Link to={`/a/${account.slug}/round/outing/new`}>Change it</Link>
            </>
          }
        >
          <p>{next.sentence}</p>
          <ActList acts={next.acts} brief />
          {next.left.length > 0 && <LeftList left={next.left} />}
        </Section>
      )}
    </>
  );
}

/** The one thing to do: go out, or go on with what was begun. */
function Go({ week, data }: { week: Week | undefined; data: Schemas["TodayOut"] }) {
  const account = useAccount();
  const may = useMay("applicator");
  const go = useNavigate();
  const take = useTakeOuting();
  const open = week?.open[0];
  if (open && !week.next)
    return (
      <ButtonLink look="main" to={`/a/${account.slug}/round/outing/${open.id}`}>
        {open.status === "planned" ? "Open the outing" : "Go on with the outing"}
      </ButtonLink>
    );
  if (may && week?.next?.acts.length && !data.under_way.length)
    return (
      <Button
        look="main"
        isDisabled={take.isPending}
        onPress={() =>
          take.mutate(
            { ...EVERYTHING, on: week.next!.on, go: true, crew: "" },
            { onSuccess: (made) => void go(`/a/${account.slug}/round/outing/${made.id}`) },
          )
        }
      >
        Start the next outing
      </Button>
    );
  return (
    <ButtonLink look="main" to={`/a/${account.slug}/${data.to}`}>
      {data.act}
    </ButtonLink>
  );
}

/** The state of the account and the next thing to do. */
export function Today() {
  const today = useToday();
  const week = useWeek();
  const account = useAccount();
  return (
    <Waiting of={today}>
      {(data) => (
        <Page sentence={data.sentence} act={<Go week={week.data} data={data} />}>
          {data.setup.length > 0 && <Setup steps={data.setup} />}
          {data.under_way.length > 0 && (
            <Section title="Under way">
              <RoundTable rounds={data.under_way} />
            </Section>
          )}
          {data.fresh && <FreshLine fresh={data.fresh} />}
          {week.data && <Outlook week={week.data} />}
          {data.locks.length > 0 && (
            <Section title="Locked now">
              <Locks of={data.locks} />
            </Section>
          )}
          {data.due.length > 0 && (
            <Section title={<Link to={`/a/${account.slug}/season`}>Due and coming</Link>}>
              <DueTable lines={data.due} />
              {data.more > 0 && (
                <p style={{ marginTop: 8 }}>
                  <Link to={`/a/${account.slug}/season`}>{data.more} more</Link>
                </p>
              )}
            </Section>
          )}
          {data.follow.length > 0 && (
            <Section title="Look again">
              <HowNow due={data.follow} />
            </Section>
          )}
          {data.trials.length > 0 && (
            <Section title={<Link to={`/a/${account.slug}/book/trials`}>Trials to score</Link>}>
              <Facts
                of={data.trials.map((x) => [
                  x.area,
                  <Link
                    key={x.id}
                    to={`/a/${account.slug}/book/trials/${x.id}`}
                  >{`${x.name} ${x.text}`}</Link>,
                ])}
              />
            </Section>
          )}
          {data.tasks.length > 0 && (
            <Section title="To see to on the ground">
              <Tasks tasks={data.tasks} where />
            </Section>
          )}
          {data.machines.length > 0 && (
            <Section title={<Link to={`/a/${account.slug}/kit`}>In the kit</Link>}>
              <Findings of={data.machines} />
            </Section>
          )}
          {data.amiss.length > 0 && (
            <Section title="Cannot be right">
              <Findings of={data.amiss} />
            </Section>
          )}
          {data.latest.length > 0 && (
            <Section title="Last in the book">
              <Suspense>
                <BookTable applications={data.latest} />
              </Suspense>
            </Section>
          )}
        </Page>
      )}
    </Waiting>
  );
}
