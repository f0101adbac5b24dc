/** The room of rows that are not drawn. */
export const Room = ({ height }: { height: number }) =>
  height > 0 ? (
    <tr aria-hidden="true">
      <td colSpan={99} style={{ height, padding: 0, border: 0 }} />
    </tr>
  ) : null;
