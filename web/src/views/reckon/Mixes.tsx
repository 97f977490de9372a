import { api, read } from "../../api/client";
import { useChange, useMixes } from "../../api/hooks";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Empty } from "../../parts/Empty";
import { Ledger } from "../../parts/Ledger";
import { Fault } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { useOpenJob } from "./openJob";
import { reckonParts } from "./state";

/** The mixes that the account keeps by name. */
export function Mixes() {
  const account = useAccount();
  const openJob = useOpenJob();
  const may = useMay("applicator");
  const mixes = useMixes();
  const open = useChange((path, mix_id: number) =>
    read(api.GET("/api/accounts/{account}/mixes/{mix_id}", { params: { path: { ...path, mix_id } } })),
  );
  const remove = useChange((path, mix_id: number) =>
    read(api.DELETE("/api/accounts/{account}/mixes/{mix_id}", { params: { path: { ...path, mix_id } } })),
  );
  const putBack = useChange((path, mix_id: number) =>
    read(
      api.POST("/api/accounts/{account}/mixes/{mix_id}/put-back", { params: { path: { ...path, mix_id } } }),
    ),
  );
  return (
    <Waiting of={mixes}>
      {(list) => (
        <Page
          sentence={
            list.length
              ? `${list.length === 1 ? "One mix is" : `${list.length} mixes are`} kept, to be reckoned again.`
              : "No mixes are kept yet."
          }
        >
          <SubRule label="Parts of Reckon" parts={reckonParts(account.slug)} />
          <Fault error={open.error ?? remove.error ?? putBack.error} />
          {list.length === 0 ? (
            <Empty>
              Reckon a dose and press “Keep this mix”: its products, rates, ground and machine come back at a
              press, or by its name on the reckon line.
            </Empty>
          ) : (
            <Ledger>
              <thead>
                <tr>
                  <th>Mix</th>
                  <th>What is in it</th>
                  <th className="wide">Where</th>
                  <th className="wide">With</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {list.map((m) => (
                  <tr key={m.id}>
                    <td>
                      <Button
                        look="quiet"
                        onPress={() => open.mutate(m.id, { onSuccess: openJob })}
                        aria-label={`Reckon ${m.name}`}
                      >
                        {m.name}
                      </Button>
                    </td>
                    <td>{m.products}</td>
                    <td className="wide soft">{m.where}</td>
                    <td className="wide soft">{m.machine}</td>
                    <td className="figure">
                      {may && (
                        <Button
                          look="quiet"
                          aria-label={`Put ${m.name} away`}
                          onPress={() =>
                            remove.mutate(m.id, {
                              onSuccess: () => say(`${m.name} is put away.`, () => putBack.mutate(m.id)),
                            })
                          }
                        >
                          Put away
                        </Button>
                      )}
                    </td>
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
