import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { Ledger } from "../../parts/Ledger";
import { Notice } from "../../parts/Notice";
import { Section } from "../../parts/Section";

/** The outings of a mix for spots, what is left of it and how old it is. */
export function Outings({ spots }: { spots: Schemas["SpotsOut"] }) {
  const account = useAccount();
  return (
    <Section title="The spots">
      <Notice tone={spots.stale ? "stop" : "note"} word={spots.stale ? "Too old" : "Left"}>
        {`${spots.sentence} ${spots.life}`}
      </Notice>
      {spots.outings.length > 0 && (
        <Ledger>
          <thead>
            <tr>
              <th>When</th>
              <th>On</th>
              <th className="figure">Ground</th>
              <th className="figure">Spray</th>
              <th className="wide">By</th>
            </tr>
          </thead>
          <tbody>
            {spots.outings.map((o) => (
              <tr key={o.application_id}>
                <td>
                  <Link to={`/a/${account.slug}/book/${o.application_id}`}>{o.at_text}</Link>
                </td>
                <td>{o.area}</td>
                <td className="figure">{o.treated}</td>
                <td className="figure">{o.spray}</td>
                <td className="wide soft">{o.by}</td>
              </tr>
            ))}
          </tbody>
        </Ledger>
      )}
    </Section>
  );
}
