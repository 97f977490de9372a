import { api, read, send, type Schemas } from "../../api/client";
import { useChange, useMembers } from "../../api/hooks";
import { useResetLink } from "../../api/people";
import { useAccount, useMay } from "../../app/session";
import { say } from "../../app/toast";
import { Button } from "../../parts/Button";
import { Ledger } from "../../parts/Ledger";
import { Fault, Notice } from "../../parts/Notice";
import { Page } from "../../parts/Page";
import { PickField } from "../../parts/PickField";
import { Section } from "../../parts/Section";
import { SubRule } from "../../parts/SubRule";
import { Waiting } from "../../parts/Waiting";
import { accountParts } from "./accountParts";
import { Licence } from "./Licence";
import { MemberForm } from "./MemberForm";
import { roles, type RoleName } from "./roles";
import { SitesField, sitesText } from "./SitesField";

type Member = Schemas["MemberOut"];

/** The account and its people. */
export function AccountPage() {
  const account = useAccount();
  const members = useMembers();
  const may = useMay("manager") && account.whole;
  const change = useChange(
    (path, { id, ...body }: Pick<Member, "id" | "version" | "role" | "site_ids" | "licence">) =>
      read(
        send.PUT("/api/accounts/{account}/members/{member_id}", {
          params: { path: { ...path, member_id: id } },
          body,
        }),
      ),
  );
  const several = account.sites.length > 1;
  const where = (m: Member) =>
    may ? (
      <SitesField
        label={`Sites of ${m.full_name}`}
        hideLabel
        value={m.site_ids.map(String)}
        onChange={(ids) => change.mutate({ ...m, site_ids: ids.map(Number) })}
      />
    ) : (
      sitesText(m.site_ids, account.sites)
    );
  const remove = useChange((path, member_id: number) =>
    read(
      api.DELETE("/api/accounts/{account}/members/{member_id}", { params: { path: { ...path, member_id } } }),
    ),
  );
  const link = useResetLink();
  const acts = (m: Member) =>
    !m.you && (
      <>
        <Button look="quiet" aria-label={`New password for ${m.full_name}`} onPress={() => link.mutate(m.id)}>
          New password
        </Button>{" "}
        <Button
          look="quiet"
          aria-label={`Take out ${m.full_name}`}
          onPress={() =>
            remove.mutate(m.id, {
              onSuccess: () => say(`${m.full_name} is no longer a member. Entries stay.`),
            })
          }
        >
          Take out
        </Button>
      </>
    );
  return (
    <Waiting of={members}>
      {(list) => (
        <Page
          sentence={`${account.name}: ${list.length === 1 ? "one member" : `${list.length} members`}, working in ${account.units === "us" ? "US" : "metric"} units.`}
        >
          <SubRule label="Parts of the account" parts={accountParts(account)} />
          <Section title="Members">
            <Fault error={change.error ?? remove.error ?? link.error} />
            {link.data && (
              <Notice tone="note" word={`For ${list.find((m) => m.id === link.variables)?.full_name}`}>
                Hand this link over; with it they set a new password, once, within a day:{" "}
                <output>{`${window.location.origin}${link.data.path}`}</output>
              </Notice>
            )}
            <Ledger>
              <thead>
                <tr>
                  <th>Name</th>
                  <th className="wide">Signs in as</th>
                  <th>May</th>
                  {several && <th className="wide">On</th>}
                  {may && <th className="wide" aria-label="What to do" />}
                </tr>
              </thead>
              <tbody>
                {list.map((m) => (
                  <tr key={m.id}>
                    <td>
                      {m.full_name} {m.you && <span className="soft">you</span>}
                      {may ? (
                        <Licence
                          of={m}
                          pending={change.isPending}
                          onKeep={(licence, then) =>
                            change.mutate(
                              { ...m, licence },
                              {
                                onSuccess: () => {
                                  then();
                                  say(`The licence of ${m.full_name} is kept.`);
                                },
                              },
                            )
                          }
                        />
                      ) : (
                        m.licence && <div className="soft">{`Licence ${m.licence}`}</div>
                      )}
                      {may && <div className="narrow">{acts(m)}</div>}
                    </td>
                    <td className="wide soft">{m.username}</td>
                    <td>
                      {may ? (
                        <PickField
                          label={`What ${m.full_name} may do`}
                          hideLabel
                          name={`role-${m.id}`}
                          value={m.role}
                          options={roles}
                          onChange={(role) => change.mutate({ ...m, role: role as RoleName })}
                        />
                      ) : (
                        roles.find((r) => r.key === m.role)?.text
                      )}
                      {several && (
                        <div className="narrow" style={{ marginTop: 8 }}>
                          {where(m)}
                        </div>
                      )}
                    </td>
                    {several && <td className="wide">{where(m)}</td>}
                    {may && <td className="figure wide">{acts(m)}</td>}
                  </tr>
                ))}
              </tbody>
            </Ledger>
          </Section>
          {may && <MemberForm />}
        </Page>
      )}
    </Waiting>
  );
}
