/** Starts a download of a file. */
export function saveFile(file: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file);
  link.download = name;
  link.click();
  // The download has its own hold on it.
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
