import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, type RefObject } from 'react';
import { BodyRow, type BodyProps } from './TableBody';
import type { ManyRows } from './tableTypes';

const ROW = 29;

/** The rows in view of more than are held: those above and below are so much height. */
export function ManyRowsBody<Row extends object>({
  box,
  ...props
}: BodyProps<Row> & { many: ManyRows<Row>; box: RefObject<HTMLDivElement | null> }) {
  const { model, many, rowKey, empty } = props;
  const width = model.getVisibleLeafColumns().length;
  const virtual = useVirtualizer({
    count: many.count,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 12,
    initialRect: { width: 1000, height: 700 },
  });
  const items = virtual.getVirtualItems();
  const [from, to] = [items[0]?.index ?? 0, items.at(-1)?.index ?? 0];
  const { onView } = many;
  useEffect(() => onView(from, to), [onView, from, to]);
  const before = items[0]?.start ?? 0;
  const after = virtual.getTotalSize() - (items.at(-1)?.end ?? 0);
  return (
    <tbody>
      {before > 0 && <tr style={{ height: before }} aria-hidden="true" />}
      {items.map(({ index }) => {
        const row = many.rowAt(index);
        return row ? (
          <BodyRow key={index} {...props} row={model.getRow(rowKey(row))} />
        ) : (
          <tr key={index}>
            <td colSpan={width} className="note">
              …
            </td>
          </tr>
        );
      })}
      {after > 0 && <tr style={{ height: after }} aria-hidden="true" />}
      {many.count === 0 && (
        <tr>
          <td colSpan={width} className="note">
            {empty}
          </td>
        </tr>
      )}
    </tbody>
  );
}
