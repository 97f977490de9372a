import { useEffect } from "react";
import { Link, useLocation, useParams } from "react-router";
import styled from "styled-components";
import { useGlossary } from "../../app/glossary";
import { useAccount } from "../../app/session";
import { t } from "../../app/theme";
import { Facts } from "../../parts/Facts";
import { Page } from "../../parts/Page";
import { Section } from "../../parts/Section";
import { chapters } from "./manual";

const Text = styled.div`
  max-width: 68ch;
  p,
  ol,
  ul {
    margin: 0 0 12px;
  }
  ol,
  ul {
    padding-left: 22px;
  }
  img {
    max-width: 100%;
    height: auto;
    border: 1px solid ${t.hair};
    margin: 4px 0 8px;
  }
`;
const List = styled.ol`
  display: grid;
  gap: 2px;
  a {
    display: inline-block;
    padding: 6px 0;
  }
  a[aria-current] {
    color: ${t.ink};
    font-weight: 600;
    text-decoration: none;
  }
`;

const GLOSSARY = "glossary";

/** The manual, a chapter at a time, in the order of work; the glossary at its end. */
export function HelpPage() {
  const { chapter: key = chapters[0]!.key } = useParams();
  const account = useAccount();
  const { hash } = useLocation();
  const words = useGlossary();
  const chapter = chapters.find((c) => c.key === key);
  useEffect(() => {
    if (hash) document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [hash, key, words]);
  const base = `/a/${account.slug}/help`;
  return (
    <Page
      sentence={chapter ? `Manual: ${chapter.title}.` : "What the words of the trade mean."}
      margin={
        <nav aria-label="Chapters">
          <Section title="Chapters">
            <List>
              {[...chapters, { key: GLOSSARY, title: "Glossary" }].map((c) => (
                <li key={c.key}>
                  <Link to={`${base}/${c.key}`} aria-current={c.key === key ? "page" : undefined}>
                    {c.title}
                  </Link>
                </li>
              ))}
            </List>
          </Section>
        </nav>
      }
    >
      {chapter?.sections.map((s) =>
        s.title ? (
          <Section key={s.id} title={<span id={s.id}>{s.title}</span>}>
            <Text dangerouslySetInnerHTML={{ __html: s.html }} />
          </Section>
        ) : (
          <Text key="lead" dangerouslySetInnerHTML={{ __html: s.html }} />
        ),
      )}
      {!chapter && (
        <Facts of={words.map((w) => [w.also.length ? `${w.term} (${w.also.join(", ")})` : w.term, w.text])} />
      )}
    </Page>
  );
}
