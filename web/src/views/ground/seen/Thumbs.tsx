import { Link } from "react-router";
import styled from "styled-components";
import { pictureOf, type Photo } from "../../../api/scouting";
import { useAccount } from "../../../app/session";
import { t } from "../../../app/theme";

const Strip = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(132px, 1fr));
  gap: 12px;
  padding: 0;
  list-style: none;
  a {
    display: grid;
    gap: 4px;
    color: inherit;
    text-decoration: none;
    font-size: ${t.s13};
  }
  img {
    width: 100%;
    aspect-ratio: 4 / 3;
    object-fit: cover;
    border: 1px solid ${t.rule};
    background: ${t.wash};
  }
  a:focus-visible img {
    outline: 2px solid ${t.accent};
    outline-offset: 2px;
  }
  span {
    color: ${t.soft};
  }
`;

/** Photographs as they were taken; each leads to its own page. */
export function Thumbs({ of, label }: { of: Photo[]; label: string }) {
  const { slug } = useAccount();
  return (
    <Strip aria-label={label}>
      {of.map((p) => (
        <li key={p.id}>
          <Link to={`/a/${slug}/ground/${p.area_id}/seen/${p.id}`}>
            <img src={pictureOf(slug, p.id, true)} alt="Photograph of" loading="lazy" />
            {p.day.replace(/ \d{4}$/, "")}
            {p.text && <span>{p.text}</span>}
          </Link>
        </li>
      ))}
    </Strip>
  );
}
