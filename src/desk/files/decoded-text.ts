/** The text of an uploaded table: UTF-8, or what older spreadsheets write; the latter is noted. */
export function decodedText(bytes: Uint8Array, notes: string[]): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    notes.push("The file is not UTF-8; it was read as Windows-1252 (Latin-1).");
    return new TextDecoder("windows-1252").decode(bytes);
  }
}
