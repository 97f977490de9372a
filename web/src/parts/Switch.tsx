import type { ReactNode } from "react";
import { Checkbox } from "react-aria-components";
import styled from "styled-components";
import { t } from "../app/theme";

const Root = styled(Checkbox)<{ $large: boolean }>`
  display: grid;
  grid-template-columns: ${({ $large }) => ($large ? "26px" : "20px")} 1fr;
  gap: 10px;
  align-items: start;
  padding: ${({ $large }) => ($large ? "9px 0" : "6px 0")};
  cursor: pointer;
  min-height: ${({ $large }) => ($large ? "44px" : "0")};
  ${t.phone} {
    min-height: 44px;
    padding-block: 11px;
  }
  .tick {
    width: 100%;
    aspect-ratio: 1;
    border: 1.5px solid ${t.rule};
    border-radius: 3px;
    background: ${t.sheet};
  }
  svg {
    display: block;
    width: 100%;
    fill: none;
    stroke: ${t.onAccent};
    stroke-width: 3;
    stroke-dasharray: 30;
    stroke-dashoffset: 30;
  }
  &[data-selected] .tick {
    background: ${t.accent};
    border-color: ${t.accent};
    svg {
      stroke-dashoffset: 0;
    }
  }
  &[data-focus-visible] .tick {
    outline: 2px solid ${t.accent};
    outline-offset: 2px;
  }
  &[data-focus-visible] {
    outline: none;
  }
  &[data-disabled] {
    cursor: not-allowed;
    color: ${t.soft};
  }
  @media print {
    svg {
      display: none;
    }
    .tick {
      background: none !important;
      border-color: #000 !important;
    }
  }
`;

interface Props {
  value: boolean;
  onChange: (value: boolean) => void;
  disabled?: boolean;
  large?: boolean;
  children: ReactNode;
}

/** A box to tick. */
export function Switch({ value, onChange, disabled, large = false, children }: Props) {
  return (
    <Root isSelected={value} onChange={onChange} isDisabled={disabled} $large={large}>
      <span className="tick" aria-hidden>
        <svg viewBox="0 0 24 24">
          <path d="M5 12.5l4.5 4.5L19 7.5" />
        </svg>
      </span>
      <span>{children}</span>
    </Root>
  );
}
