import { Link } from "react-router";
import { useTrials } from "../../api/trials";
import { useAccount, useMay } from "../../app/session";
import { ButtonLink } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Ledger } from "../../parts/Ledger";
import { Page } from "../../parts/Page";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { bookParts } from "../book/bookParts";

/** The trials: what is tried where, and what it shows so far. */
export function Trials() {
  const account = useAccount();
  const manager = useMay("manager");
  const trials = useTrials();
  return (
    <Waiting of={trials}>
      {({ sentence, trials: found }) => (
        <Page
          sentence={sentence}
          act={
            manager && (
              <ButtonLink look="main" to={`/a/${account.slug}/book/trials/new`}>
                Begin a trial
              </ButtonLink>
            )
          }
        >
          <SubRule label="Parts of the book" parts={bookParts(account.slug, manager)} />
          {found.length === 0 && (
            <Empty>
              A trial says whether a product does anything on this ground: strips with it beside strips
              without, drawn by lot, scored on set days.
            </Empty>
          )}
          {found.length > 0 && (
            <Ledger>
              <thead>
                <tr>
                  <th>Trial</th>
                  <th className="wide">On</th>
                  <th>What it shows</th>
                </tr>
              </thead>
              <tbody>
                {found.map((x) => (
                  <tr key={x.id}>
                    <td>
                      <Link to={`/a/${account.slug}/book/trials/${x.id}`}>{x.name}</Link>
                      <div className="soft">{x.since}</div>
                      <div className="soft narrow">{x.area}</div>
                    </td>
                    <td className="wide">{x.area}</td>
                    <td>{x.sentence}</td>
                  </tr>
                ))}
              </tbody>
            </Ledger>
          )}
        </Page>
      )}
    </Waiting>
  );
}
