/** Narrows a table to the rows that a text is found in; Esc empties it. */
export function FindBox({ label, text, onText }: { label: string; text: string; onText: (text: string) => void }) {
  return (
    <input
      type="search"
      className="box find-box"
      placeholder="Find in the list"
      aria-label={`Find in ${label}`}
      value={text}
      onChange={(event) => onText(event.target.value)}
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || text === '') return;
        event.stopPropagation();
        onText('');
      }}
    />
  );
}
