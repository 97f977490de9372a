import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useComparedPlans } from "../../api/passes";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { Button } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { LandingMap } from "../../parts/LandingMap";
import { Fault } from "../../parts/Notice";
import { Section } from "../../parts/Section";
import type { Typed } from "./state";

const Four = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 24px 28px;
  h3 {
    font: 600 ${t.s15} ${t.text};
    margin-bottom: 4px;
  }
  dl {
    display: grid;
    grid-template-columns: max-content 1fr;
    gap: 0 12px;
    font-size: ${t.s13};
    margin: 4px 0 6px;
  }
  dt {
    color: ${t.soft};
  }
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

interface Props {
  plan: Schemas["PassesOut"];
  asked: Schemas["PlanIn"];
  typed: Typed;
  change: (part: Partial<Typed>) => void;
}

/** One round and two half rounds of each kind, side by side. */
export function CompareSection({ plan, asked, typed, change }: Props) {
  const account = useAccount();
  const [open, setOpen] = useState(false);
  const found = useComparedPlans(open ? { plan: asked, walked: typed.walked } : null);
  const answer = open && !found.error ? found.data : undefined;
  return (
    <Section title="Once, or twice at half the rate?">
      {!open && <Button onPress={() => setOpen(true)}>Lay them side by side</Button>}
      <Fault error={open ? found.error : null} />
      {open && !answer && !found.error && <Hint>Laying four plans out …</Hint>}
      {answer && (
        <>
          <p data-answer="compared" style={{ marginBottom: 14 }}>
            {answer.sentence}
          </p>
          <Four>
            {answer.variants.map((v) => (
              <section key={v.second} aria-label={v.name}>
                <h3>
                  {v.name}
                  {v.best && ", the most even"}
                </h3>
                <LandingMap landed={v.landed} plan={plan} us={account.units === "us"} width={360} />
                <dl>
                  <dt>CV</dt>
                  <dd>{v.cv_text}</dd>
                  <dt>Under 80 %, over 120 %</dt>
                  <dd>{`${v.under}, ${v.over} of the area`}</dd>
                  <dt>Beside it</dt>
                  <dd>{v.outside}</dd>
                  <dt>To walk</dt>
                  <dd>{`${v.distance}, ${v.time}`}</dd>
                </dl>
                {typed.second !== v.second && (
                  <Button look="quiet" onPress={() => change({ second: v.second })}>
                    Walk it so
                  </Button>
                )}
              </section>
            ))}
          </Four>
        </>
      )}
    </Section>
  );
}
