/** A button that takes a file from the device. */
export function FileButton(props: { label: string; accept: string; onFile(file: File): void }) {
  return (
    <label className="file-button">
      {props.label}
      <input
        type="file"
        accept={props.accept}
        onChange={(event) => {
          const file = event.target.files?.[0];
          // Emptied, so that the same file can be given again.
          event.target.value = '';
          if (file) props.onFile(file);
        }}
      />
    </label>
  );
}
