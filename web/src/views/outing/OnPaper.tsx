import { type Outing } from "../../api/outings";
import { useAccount } from "../../app/session";
import { OnScreen, Section } from "../../parts/Section";

/** What of an outing goes on paper. */
export function OnPaper({ outing }: { outing: Outing }) {
  const { slug } = useAccount();
  const at = `/api/accounts/${slug}/proof/outings/${outing.id}`;
  const papers = [
    { to: `${at}/sheet.pdf`, text: "Sheet for whoever goes" },
    ...(outing.applications.length
      ? [
          { to: `${at}/gate.pdf`, text: "Notices for the gates" },
          { to: `${at}/notes.pdf`, text: "Customers’ notes" },
        ]
      : []),
  ];
  return (
    <OnScreen>
      <Section title="On paper">
        <ul>
          {papers.map((p) => (
            <li key={p.to}>
              <a href={p.to} target="_blank" rel="noreferrer">
                {p.text}
              </a>
            </li>
          ))}
        </ul>
      </Section>
    </OnScreen>
  );
}
