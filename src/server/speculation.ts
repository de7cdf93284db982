/**
 * What is about to be gone to is fetched before it is pressed (Speculation Rules of the HTML Standard). Opening a page
 * tells others that it is open: not that.
 */
export const SPECULATION = JSON.stringify({
  prefetch: [
    {
      where: { and: [{ selector_matches: "nav a" }, { not: { href_matches: "/*/pages/*" } }] },
      eagerness: "moderate",
    },
  ],
});
