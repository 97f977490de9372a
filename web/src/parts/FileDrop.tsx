import { DropZone, FileTrigger, isFileDropItem, Text } from "react-aria-components";
import styled from "styled-components";
import { t } from "../app/theme";
import { Button } from "./Button";

const Zone = styled(DropZone)`
  display: grid;
  gap: 10px;
  justify-items: start;
  border: 1px dashed ${t.rule};
  padding: 24px;
  max-width: 60ch;
  &[data-drop-target] {
    background: ${t.wash};
    border-color: ${t.accent};
  }
  &[data-focus-visible] {
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
    <div role="group" aria-label={label}>
      <Zone
        onDrop={(e) => {
          const dropped = e.items.find(isFileDropItem);
          if (dropped) void dropped.getFile().then(onTake);
        }}
      >
        <Text slot="label">{about}</Text>
        <FileTrigger
          acceptedFileTypes={accept.split(",")}
          onSelect={(files) => files?.[0] && onTake(files[0])}
        >
          <Button>Choose a file</Button>
        </FileTrigger>
      </Zone>
    </div>
  );
}
