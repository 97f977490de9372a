import { Link } from "react-router";
import { useVessels } from "../../api/kit";
import { useAccount, useMay } from "../../app/session";
import { ButtonLink } from "../../parts/Button";
import { Hint } from "../../parts/Field";
import { Ledger } from "../../parts/Ledger";
import { Bar, Section } from "../../parts/Section";
import { shapes } from "./kitParts";

/** What the account measures with: cups, syringes, spoons and scales. */
export function Vessels() {
  const account = useAccount();
  const may = useMay("manager");
  const { data } = useVessels();
  if (!data) return null;
  const kept = data.filter((v) => !v.retired);
  const retired = data.filter((v) => v.retired);
  return (
    <Section title="To measure with">
      {kept.length === 0 ? (
        <Hint>
          No vessels yet: doses are told for a plain set of syringes, cups, jugs and scales. Add your own, and
          every sheet picks among them.
        </Hint>
      ) : (
        <Ledger>
          <thead>
            <tr>
              <th>Vessel</th>
              <th className="wide">What</th>
              <th className="figure">Holds</th>
              <th className="figure">A mark every</th>
              <th>Its marks</th>
            </tr>
          </thead>
          <tbody>
            {kept.map((v) => (
              <tr key={v.id}>
                <td>
                  <Link to={`/a/${account.slug}/kit/vessels/${v.id}`}>{v.name}</Link>
                </td>
                <td className="wide">{shapes[v.shape]}</td>
                <td className="figure">{v.capacity.text}</td>
                <td className="figure">{v.graduation.text}</td>
                <td className="soft">{v.state}</td>
              </tr>
            ))}
          </tbody>
        </Ledger>
      )}
      {retired.length > 0 && (
        <Hint style={{ marginTop: 8 }}>
          {`Retired: `}
          {retired.map((v, i) => (
            <span key={v.id}>
              {i > 0 && ", "}
              <Link to={`/a/${account.slug}/kit/vessels/${v.id}`}>{v.name}</Link>
            </span>
          ))}
        </Hint>
      )}
      {may && (
        <Bar>
          <ButtonLink to={`/a/${account.slug}/kit/vessels/new`}>Add a vessel</ButtonLink>
        </Bar>
      )}
    </Section>
  );
}
