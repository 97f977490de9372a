import type { ReactNode, Ref } from "react";
import styled from "styled-components";
import { t } from "../app/theme";

const Box = styled.section`
  &:not(:first-child) {
    margin-top: 28px;
  }
  > h2 {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    padding-bottom: 6px;
    margin-bottom: 12px;
    border-bottom: 1px solid ${t.hair};
  }
  > h2 > button,
  > h2 > a:not(:only-child) {
    font: 400 ${t.s15} ${t.text};
    min-height: 0;
    padding-block: 0;
    ${t.phone} {
      min-height: 44px;
    }
  }
  @media print {
    break-inside: avoid;
  }
`;

/** A part of a view under its heading and a hairline. */
export function Section({
  title,
  ref,
  children,
}: {
  title: ReactNode;
  ref?: Ref<HTMLElement>;
  children: ReactNode;
}) {
  return (
    <Box ref={ref}>
      <h2>{title}</h2>
      {children}
    </Box>
  );
}

export const Fields = styled.div<{ $columns?: number }>`
  display: grid;
  grid-template-columns: repeat(${({ $columns = 2 }) => $columns}, minmax(0, 1fr));
  gap: 16px 20px;
  align-items: start;
  ${t.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** What a long list is searched and ordered by; on a phone the search alone takes a line of its own. */
export const Finder = styled(Fields)`
  margin-bottom: 20px;
  ${t.phone} {
    grid-template-columns: repeat(2, minmax(0, 1fr));
    > :first-child {
      grid-column: 1 / -1;
    }
  }
  @media print {
    display: none;
  }
`;

/** What a printed sheet leaves out; a section that it holds stands as far from what is before it as any other. */
export const OnScreen = styled.div`
  &:not(:first-child) > section:first-child {
    margin-top: 28px;
  }
  @media print {
    display: none;
  }
`;

export const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  margin-top: 24px;
  @media print {
    display: none;
  }
`;

/** A list whose lines stand on hairlines. */
export const Hairlines = styled.ul`
  li {
    padding: 8px 0;
    border-bottom: 1px solid ${t.hair};
  }
`;

export const Stack = styled.div<{ $gap?: number }>`
  display: grid;
  gap: ${({ $gap = 12 }) => $gap}px;
`;
