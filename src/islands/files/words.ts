import { counted } from "../../ui/format/counted.ts";

// What the screens of files say, in the order of their files.

/** What is filled in. */
type Value = string | number;

// FileDetail.tsx
export const saved = "Saved";
export const file = (name: Value) => `File ${name}`;
export const uploadedBy = (mediaType: Value, createdBy: Value) => `${mediaType}, uploaded by ${createdBy}.`;
export const openIt = "Open it";
export const save = "Save";
export const deleteFile = "Delete file";
export const deleteThough1PageUsesIt = "Delete, though 1 page uses it";
export const deleteThoughPagesUseIt = (used: Value) => `Delete, though ${used} pages use it`;
export const alternativeTextToBeginWith = "Alternative text to begin with";
export const path = "Path";
export const pagesThatUseItWouldLoseIt = "Pages that use it would lose it.";
export const whatIsShownOfIt = "What is shown of it";
export const aPart = "a part";
export const all = "all";
export const usedBy = "Used by";
export const noPageAndNoBlockInDraft = "No page and no block, in draft or published.";
export const sharedBlock = "shared block";

// FileTable.tsx
export const onPages = (number: number) => counted(number, "page", "pages");
export const picture = "Picture";
export const name = "Name";
export const copyThePathOf = (name: Value) => `Copy the path of ${name}`;
export const size = "Size";
export const used = "Used";
export const nowhere = "nowhere";
export const uploaded = "Uploaded";
export const files = "Files";

// FilesScreen.tsx
export const deleted = (name: Value) => `Deleted “${name}”`;
export const searchFilesByNamePathOrAlternative = "Search files by name, path or alternative text";
export const searchFiles = "Search files";
export const filesToUpload = "Files to upload";
export const upload = "Upload";
export const noFileHasTheseWordsInIts = "No file has these words in its name, path or alternative text.";
export const noFilesYetDropPicturesOrDocuments =
  "No files yet. Drop pictures or documents here, or paste them right into a page’s text.";
export const showMore = "Show more";

// Sendings.tsx
export const uploadOf = (name: Value) => `Upload of ${name}`;

// ShapeForm.tsx
export const fromTheLeft = "From the left, %";
export const fromTheTop = "From the top, %";
export const width = "Width, %";
export const height = "Height, %";
export const across = "Across, %";
export const down = "Down, %";
export const savedItsSizesAreMadeAnew = "Saved; its sizes are made anew";
export const showAllOfIt = "Show all of it";
export const drawingSets = "Drawing sets";
export const whatIsShown = "What is shown";
export const itsFocus = "Its focus";
export const theFocusStaysInSightWhereA =
  "The focus stays in sight where a preview cuts the picture further.";

// What was found
export const filesDropMore = (files: Value) => `${files} files; drop more anywhere here`;

// In the tab of the browser
export const titleFiles = "Files";
