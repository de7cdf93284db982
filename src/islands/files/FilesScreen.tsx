import { useInfiniteQuery, useMutation } from "@tanstack/react-query";
import { Upload as UploadSign } from "lucide-react";
import type { SiteFile } from "../../core/files/file.ts";
import type { Site } from "../../core/sites/site.ts";
import { FilterBar } from "../../ui/filter/FilterBar.tsx";
import { ChooseFiles } from "../../ui/fields/ChooseFiles.tsx";
import { notify } from "../../ui/notices/notices.ts";
import { later } from "../../ui/frame/later.tsx";
import { Screen } from "../../ui/frame/Screen.tsx";
import { useAddressState } from "../../ui/client/url-state.ts";
import { useDebounced } from "../../ui/keys/use-debounced.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { refresh, keyOf } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { FileTable } from "./FileTable.tsx";
import { Sendings } from "./Sendings.tsx";
import { useSending } from "./use-sending.ts";
import * as say from "./words.ts";

const FileDetail = later(async () => (await import("./FileDetail.tsx")).default);

/** The site's pictures and documents: upload, where each is used, delete with undo. */
export function FilesScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="files" />
      <Files site={site} />
    </Screen>
  );
}

function Files({ site }: { site: Site }) {
  const [q] = useAddressState("q");
  const [sort, setSort] = useAddressState("sort");
  const [open, setOpen] = useAddressState("open");
  const search = useDebounced(q, 200);
  const files = useInfiniteQuery({
    queryKey: keyOf("GET /sites/:site/files", { site: site.id, query: { q: search, sort } }),
    queryFn: ({ pageParam }) => {
      const query = {
        limit: 100,
        cursor: pageParam,
        ...(search && { q: search }),
        sort: sort || "-createdAt",
      };
      return api("GET /sites/:site/files", { site: site.id, query });
    },
    initialPageParam: "",
    getNextPageParam: (last) => last.nextCursor ?? undefined,
    placeholderData: (previous) => previous,
  });
  const items = files.data?.pages.flatMap((page) => page.items) ?? [];
  const refreshFiles = (): Promise<void> => refresh("GET /sites/:site/files");

  const { sending, send } = useSending(site, () => void refreshFiles());
  const remove = useMutation({
    mutationFn: (file: SiteFile) => api("DELETE /sites/:site/files/:id", { site: site.id, id: file.id }),
    onSuccess: (_answer, file) => {
      setOpen("");
      void refreshFiles();
      notify(say.deleted(file.name), {
        undo: () =>
          void api("POST /sites/:site/files/:id/restore", { site: site.id, id: file.id }).then(
            refreshFiles,
            (error: unknown) => notify(messageOf(error), { tone: "failed" }),
          ),
      });
    },
    onError: (error) => notify(messageOf(error), { tone: "failed" }),
  });
  const opened = items.find(({ id }) => id === open);
  return (
    <div
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        void send([...event.dataTransfer.files]);
      }}
      className="grow"
    >
      <FilterBar
        search={{
          label: say.searchFilesByNamePathOrAlternative,
          placeholder: say.searchFiles,
        }}
        found={files.isSuccess ? say.filesDropMore(files.data.pages[0]!.total) : undefined}
        actions={
          <ChooseFiles
            label={say.filesToUpload}
            className="action action-main"
            onChoose={(chosen) => void send(chosen)}
          >
            <UploadSign size={16} aria-hidden /> {say.upload}
          </ChooseFiles>
        }
      />
      <Sendings of={sending} />
      {files.isError ? <p className="text-bad">{messageOf(files.error)}</p> : null}
      {files.isSuccess && items.length === 0 ? (
        <p className="rounded border border-dashed border-line py-20 text-center text-quiet">
          {search ? say.noFileHasTheseWordsInIts : say.noFilesYetDropPicturesOrDocuments}
        </p>
      ) : (
        <div
          className={opened ? "grid gap-4 grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1fr)_24rem]" : ""}
        >
          <FileTable
            items={items}
            open={open}
            onOpen={setOpen}
            sort={sort || "-createdAt"}
            setSort={setSort}
          />
          {opened ? (
            <FileDetail
              key={opened.id}
              site={site}
              file={opened}
              onChanged={() => void refreshFiles()}
              onRemove={() => remove.mutate(opened)}
              onClose={() => setOpen("")}
            />
          ) : null}
        </div>
      )}
      {files.hasNextPage ? (
        <button className="action mt-3" onClick={() => void files.fetchNextPage()}>
          {say.showMore}
        </button>
      ) : null}
    </div>
  );
}
