import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { pictureOf } from "../api/scouting";
import { useAccount } from "../app/session";
import { t } from "../app/theme";

const Rows = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  margin-top: 8px;
`;
const Pair = styled.figure`
  margin: 0;
  > a {
    display: flex;
    gap: 4px;
  }
  img,
  i {
    display: block;
    width: 112px;
    height: 84px;
    object-fit: cover;
    border: 1px solid ${t.rule};
  }
  i {
    border-style: dashed;
  }
  figcaption {
    max-width: 230px;
    font-size: ${t.s13};
  }
  small {
    display: block;
    color: ${t.soft};
  }
`;

/** The fixed spots of an application's ground, before it and since: what the eye needs to say how it is now. */
export function SpotsSince({ spots, area_id }: { spots: Schemas["SpotSinceOut"][]; area_id: number }) {
  const { slug } = useAccount();
  if (spots.length === 0) return null;
  const seen = `/a/${slug}/ground/${area_id}/seen`;
  return (
    <Rows>
      {spots.map(({ spot_id, name, before, since }) => {
        const to =
          before && since
            ? `${seen}/compare?then=${before.id}&now=${since.id}`
            : `${seen}/${(before ?? since)?.id}`;
        return (
          <Pair key={spot_id}>
            <Link to={to} aria-label={before && since ? `Compare ${name}` : `Photograph of ${name}`}>
              {[before, since].map((shot, i) =>
                shot ? (
                  <img key={i} src={pictureOf(slug, shot.id, true)} alt="" loading="lazy" />
                ) : (
                  <i key={i} />
                ),
              )}
            </Link>
            <figcaption>
              {name}
              <small>{before ? before.text : "None of before"}</small>
              <small>{since ? since.text : "None since"}</small>
            </figcaption>
          </Pair>
        );
      })}
    </Rows>
  );
}
