import type { Site } from "../../core/sites/site.ts";
import { later } from "../../ui/frame/later.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { TextToRead } from "./TextToRead.tsx";
import "./writing.css";

const LoadedPage = later(async () => (await import("./LoadedPage.tsx")).LoadedPage, TextToRead);

/** One page: its text, and beside it the rope with a knot for each link. Until it can be written, it can be read. */
export function WritingView(props: { site: Site; pageId: string }) {
  return (
    <Screen>
      <LoadedPage {...props} />
    </Screen>
  );
}
