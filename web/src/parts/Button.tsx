import { Button as AriaButton, type ButtonProps } from "react-aria-components";
import { Link, type LinkProps } from "react-router";
import styled, { css } from "styled-components";
import { t } from "../app/theme";

type Look = "main" | "plain" | "quiet" | "stop";

const looks = {
  main: css`
    background: ${t.accent};
    border-color: ${t.accent};
    color: ${t.onAccent};
    font-weight: 600;
  `,
  plain: css`
    background: ${t.sheet};
    border-color: ${t.rule};
  `,
  quiet: css`
    background: none;
    border-color: transparent;
    color: ${t.accent};
    text-decoration: underline;
    text-underline-offset: 0.18em;
    text-decoration-thickness: 1px;
    padding-inline: 4px;
  `,
  stop: css`
    background: none;
    border-color: ${t.stop};
    color: ${t.stop};
  `,
};

const shape = css<{ $look: Look }>`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 8px;
  min-height: 40px;
  padding: 6px 16px;
  border: 1px solid;
  border-radius: 3px;
  cursor: pointer;
  text-decoration: none;
  white-space: nowrap;
  ${({ $look }) => looks[$look]}
  &[data-hovered] {
    filter: brightness(0.96);
  }
  &[data-disabled] {
    opacity: 0.5;
    cursor: not-allowed;
  }
  ${t.phone} {
    min-height: 48px;
  }
  @media print {
    display: none;
  }
`;

const Shaped = styled(AriaButton)<{ $look: Look }>`
  ${shape}
`;
const ShapedLink = styled(Link)<{ $look: Look }>`
  ${shape}
`;

/** A button; its words are the verb of what happens. */
export function Button({ look = "plain", ...props }: ButtonProps & { look?: Look; "data-fold"?: boolean }) {
  return <Shaped $look={look} {...props} />;
}

/** A link that looks like a button. */
export function ButtonLink({ look = "plain", ...props }: LinkProps & { look?: Look }) {
  return <ShapedLink $look={look} {...props} />;
}
