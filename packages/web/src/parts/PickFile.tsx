/** A link that opens one file; the same file can be opened again. */
export function PickFile({ label, onFile }: { label: string; onFile: (file: File) => void }) {
  return (
    <label className="link nowrap" style={{ alignSelf: 'center' }}>
      {label}
      <input
        type="file"
        className="hidden-text"
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) onFile(file);
        }}
      />
    </label>
  );
}
