import type { PublishedPage } from "../../store/ground/models.ts";

export interface WithPreview {
  /** A page's document as the delivery listener of this process would send it; undefined when it cannot yet. */
  preview(siteId: string, page: PublishedPage & { id?: string }): string | undefined;
}
