import { useParams } from "react-router";
import { pictureOf, useEyes, usePair, type Photo } from "../../../api/scouting";
import { useAsked } from "../../../app/asked";
import { useAccount } from "../../../app/session";
import { BeforeAfter } from "../../../parts/BeforeAfter";
import { Notice } from "../../../parts/Notice";
import { Page } from "../../../parts/Page";
import { PickField } from "../../../parts/PickField";
import { Fields, Section } from "../../../parts/Section";
import { Waiting } from "../../../parts/Waiting";
import { BackTo } from "./SeenPage";

const option = (p: Photo) => ({ key: String(p.id), text: p.taken, note: p.spot });

/** Two photographs of an area, one over the other, with what makes them hard to compare. */
export function ComparePage() {
  const area_id = Number(useParams().id);
  const [query, change] = useAsked();
  const { slug } = useAccount();
  const eyes = useEyes(area_id);
  const pair = usePair(Number(query.get("then")), Number(query.get("now")));
  const pick = (name: string) => (id: string) => change({ [name]: id });
  return (
    <Waiting of={pair}>
      {(found) => (
        <Page
          sentence={`${found.now.spot || found.now.area}: ${found.apart} apart.`}
          margin={
            <Section title="Take care">
              {found.doubts.length === 0 ? (
                <p>
                  Nothing noted stands against comparing them. Exposure and white balance are never noted.
                </p>
              ) : (
                found.doubts.map((said) => (
                  <Notice key={said} tone="caution" word="Doubt">
                    {said}
                  </Notice>
                ))
              )}
            </Section>
          }
        >
          <BeforeAfter
            before={{ src: pictureOf(slug, found.then.id), day: found.then.day }}
            after={{ src: pictureOf(slug, found.now.id), day: found.now.day }}
          />
          {eyes.data && (
            <Fields style={{ marginTop: 18, maxWidth: 760 }}>
              <PickField
                label="Then"
                name="then"
                value={query.get("then")}
                options={eyes.data.photos.map(option)}
                onChange={pick("then")}
              />
              <PickField
                label="Now"
                name="now"
                value={query.get("now")}
                options={eyes.data.photos.map(option)}
                onChange={pick("now")}
              />
            </Fields>
          )}
          <p style={{ marginTop: 18 }}>
            <BackTo area_id={area_id} name={found.now.area} />
          </p>
        </Page>
      )}
    </Waiting>
  );
}
