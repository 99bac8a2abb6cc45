import { Text } from "@chakra-ui/react";
import style from "./Table.module.css";

interface TableProps {
  /** What it is of, to those who do not see it. */
  label: string;
  /** What its columns are headed by; "" is the one of what can be done. */
  heads: readonly string[];
  /** More heads, where they are not only words. */
  moreHeads?: React.ReactNode;
  testId?: string;
  /** Its rows, as the browser's own: a long list of them is drawn at once. */
  children: React.ReactNode;
}

/** A table that scrolls by itself where it is wider than its place. */
export function Table({ label, heads, moreHeads, testId, children }: TableProps) {
  return (
    <div className={style.scroll} tabIndex={0} role="region" aria-label={label}>
      <table className={style.table} data-testid={testId}>
        <thead>
          <tr>
            {heads.map((head) => (
              <th key={head}>{head || <Text srOnly>Actions</Text>}</th>
            ))}
            {moreHeads}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </div>
  );
}
