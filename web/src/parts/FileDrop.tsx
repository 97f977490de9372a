import styled from "styled-components";
import { t } from "../app/theme";

const Drop = styled.label`
  display: grid;
  gap: 6px;
  justify-items: start;
  border: 1px dashed ${t.rule};
  padding: 24px;
  max-width: 60ch;
  cursor: pointer;
  input {
    font: inherit;
  }
  &:focus-within {
    outline: 2px solid ${t.accent};
  }
`;

interface Props {
  /** What files are taken, as an input's `accept`. */
  accept: string;
  label: string;
  about: string;
  onTake: (file: File) => void;
}

/** A file picked or dropped, and what kinds are taken. */
export function FileDrop({ accept, label, about, onTake }: Props) {
  return (
    <Drop>
      <span>{about}</span>
      <input
        type="file"
        accept={accept}
        aria-label={label}
        onChange={(e) => e.target.files?.[0] && onTake(e.target.files[0])}
      />
    </Drop>
  );
}
