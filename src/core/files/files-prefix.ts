/** Where the files of a site are. */
export const FILES_PREFIX = "/files/";
