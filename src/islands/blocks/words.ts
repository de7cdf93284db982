// What the screens of blocks say, in the order of their files.

// BlocksScreen.tsx
export const inTheFooter = "in the footer";
export const besideTheText = "beside the text";
export const name = "Name";
export const stands = "Stands";
export const on = "On";
export const allPages = "all pages";
export const links = "Links";
export const state = "State";
export const lastSaved = "Last saved";
export const untitledBlock = "Untitled block";
export const aBlockStandsOnManyPagesWith =
  "A block stands on many pages, with links like any page. {{name}} in its text or addresses is filled from the site’s variables.";
export const newBlock = "New block";
export const noSharedBlocksYetNewBlockBegins =
  "No shared blocks yet. “New block” begins one, for a footer that stands below every page, say.";
export const sharedBlocks = "Shared blocks";

// In the tab of the browser
export const titleBlocks = "Shared blocks";
