// What the screens of jobs say, in the order of their files.

// JobsScreen.tsx
export const backgroundTasks = "Background tasks";
export const whatYouBeganWithinADayIt =
  "What you began within a day. It goes on when you leave its screen, and when the workspace restarts.";
export const work = "Work";
export const begun = "Begun";
export const progress = "Progress";
export const whatCanBeDone = "What can be done";
export const stop = "Stop";
export const startAgain = "Start again";
export const nothingWithinADayImportsChangesOf =
  "Nothing within a day. Imports, changes of many links and checks of destinations stand here while they go on.";

// In the tab of the browser
export const titleJobs = "Background tasks";
