import styled from "styled-components";
import type { Schemas } from "../api/client";
import { t } from "../app/theme";
import { Left } from "./Left";
import { Hairlines } from "./Section";

type Lock = Schemas["LockOut"];

const List = styled(Hairlines)`
  strong {
    color: ${t.caution};
  }
  strong[data-binds] {
    color: ${t.stop};
  }
`;

/** What must not happen on the ground, and until when: its first words stand out, by weight as well as by colour. */
export function Locks({ of }: { of: Lock[] }) {
  return (
    <List>
      {of.map((x) => {
        const [no, what, ...rest] = x.sentence.split(" ");
        return (
          <li key={`${x.where} ${x.what}`}>
            <strong data-binds={x.binds || undefined}>{`${no} ${what}`}</strong> {rest.join(" ")}{" "}
            <Left seconds={x.left} />
          </li>
        );
      })}
    </List>
  );
}
