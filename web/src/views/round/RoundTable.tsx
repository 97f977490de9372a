import { Link } from "react-router";
import type { Schemas } from "../../api/client";
import { useAccount } from "../../app/session";
import { Ledger } from "../../parts/Ledger";
import { dayAt } from "../../parts/days";

const states = { under_way: "under way", done: "in the book", given_up: "given up" };

/** Rounds, one a row. */
export function RoundTable({ rounds }: { rounds: Schemas["RoundLineOut"][] }) {
  const account = useAccount();
  return (
    <Ledger>
      <thead>
        <tr>
          <th>Round</th>
          <th className="wide">Sheet</th>
          <th>State</th>
          <th className="figure">Loads out</th>
          <th className="wide">Begun by</th>
        </tr>
      </thead>
      <tbody>
        {rounds.map((r) => (
          <tr key={r.id}>
            <td>
              <Link to={`/a/${account.slug}/round/${r.id}`}>{r.title}</Link>
            </td>
            <td className="wide soft">{r.headline}</td>
            <td>{[states[r.status], r.left].filter(Boolean).join(", ")}</td>
            <td className="figure">{`${r.loads_done} of ${r.loads}`}</td>
            <td className="wide soft">{`${r.started_by}, ${dayAt(r.started_at)}`}</td>
          </tr>
        ))}
      </tbody>
    </Ledger>
  );
}
