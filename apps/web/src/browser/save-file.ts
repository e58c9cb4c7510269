/** Hands text or bytes to the browser as a file. */
export const saveFile = (name: string, content: BlobPart, type: string): void =>
  saveBlob(name, new Blob([content], { type }));

/** The same, of a file that is made already. */
export function saveBlob(name: string, blob: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
