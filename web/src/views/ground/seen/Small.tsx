import { Link } from "react-router";
import styled from "styled-components";
import { pictureOf } from "../../../api/scouting";
import { useAccount } from "../../../app/session";
import { t } from "../../../app/theme";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 6px;
  &:empty {
    display: none;
  }
  img {
    display: block;
    width: 84px;
    height: 63px;
    object-fit: cover;
    border: 1px solid ${t.rule};
  }
`;
const MOST = 6;

/** The pictures of an event, small. */
export function Small({ area_id, photos }: { area_id: number; photos: number[] }) {
  const { slug } = useAccount();
  return (
    <Row>
      {photos.slice(0, MOST).map((id, i) => (
        <Link
          key={id}
          to={`/a/${slug}/ground/${area_id}/seen/${id}`}
          aria-label={`Photograph ${i + 1} of ${photos.length}`}
        >
          <img src={pictureOf(slug, id, true)} alt="" loading="lazy" />
        </Link>
      ))}
    </Row>
  );
}
