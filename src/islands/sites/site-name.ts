/** How the name of the site stands in the masthead, whether its menu is there yet or not. */
export const SITE_NAME = "flex items-center gap-1.5 py-3 font-semibold whitespace-nowrap";
