import { useInfiniteQuery, useMutation } from "@tanstack/react-query";
import { Copy, Upload as UploadSign } from "lucide-react";
import { useState } from "react";
import type { SiteFile } from "../../core/files/file.ts";
import type { Site } from "../../core/sites/site.ts";
import { ChooseFiles } from "../../ui/fields/ChooseFiles.tsx";
import { copyText } from "../../ui/keys/copy.ts";
import { notify } from "../../ui/notices/notices.ts";
import { Screen } from "../../ui/frame/Screen.tsx";
import { SortHead } from "../../ui/table/SortHead.tsx";
import { useAddressState } from "../../ui/client/url-state.ts";
import { useDebounced } from "../../ui/keys/use-debounced.ts";
import { when } from "../../ui/format/when.ts";
import { SectionTabs } from "../../ui/frame/SectionTabs.tsx";
import { FileDetail } from "./FileDetail.tsx";
import { bytesInWords } from "./bytes-in-words.ts";
import { refresh, keyOf } from "../../ui/client/queries.ts";
import { api, messageOf } from "../../ui/client/api.ts";
import { sendFile } from "../../ui/client/upload.ts";

/** The site's pictures and documents: upload, where each is used, delete with undo. */
export function FilesScreen({ site }: { site: Site }) {
  return (
    <Screen>
      <SectionTabs site={site} tab="files" />
      <Files site={site} />
    </Screen>
  );
}

interface Sending {
  name: string;
  share: number;
  failure: string | undefined;
}

function Files({ site }: { site: Site }) {
  const [q, setQ] = useAddressState("q");
  const [sort, setSort] = useAddressState("sort");
  const [open, setOpen] = useAddressState("open");
  const [sending, setSending] = useState<readonly Sending[]>([]);
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

  const send = async (chosen: readonly File[]): Promise<void> => {
    setSending(chosen.map(({ name }) => ({ name, share: 0, failure: undefined })));
    const note = (index: number, part: Partial<Sending>): void =>
      setSending((before) => before.map((one, at) => (at === index ? { ...one, ...part } : one)));
    await Promise.all(
      chosen.map((file, index) =>
        sendFile("POST /sites/:site/files", { site: site.id, query: { name: file.name } }, file, (share) =>
          note(index, { share }),
        ).then(
          () => note(index, { share: 1 }),
          (error: unknown) => note(index, { failure: messageOf(error) }),
        ),
      ),
    );
    setSending((before) => before.filter(({ failure }) => failure));
    void refreshFiles();
  };
  const remove = useMutation({
    mutationFn: (file: SiteFile) => api("DELETE /sites/:site/files/:id", { site: site.id, id: file.id }),
    onSuccess: (_answer, file) => {
      setOpen("");
      void refreshFiles();
      notify(`Deleted “${file.name}”`, {
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
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <input
          className="field max-w-72"
          type="search"
          aria-label="Search files by name, path or alternative text"
          placeholder="Name, path or alternative text"
          value={q}
          onChange={(event) => setQ(event.target.value)}
        />
        <span className="text-sm text-quiet">
          {files.isSuccess ? `${files.data.pages[0]!.total} files; drop more anywhere here` : ""}
        </span>
        <ChooseFiles
          label="Files to upload"
          className="action action-main ml-auto"
          onChoose={(chosen) => void send(chosen)}
        >
          <UploadSign size={16} aria-hidden /> Upload
        </ChooseFiles>
      </div>
      {sending.map(({ name, share, failure }) => (
        <p key={name} role={failure ? "alert" : "status"} className="mb-1 flex items-center gap-3 text-sm">
          <span className="font-medium">{name}</span>
          {failure ? (
            <span className="text-bad">{failure}</span>
          ) : (
            <progress aria-label={`Upload of ${name}`} max={1} value={share} />
          )}
        </p>
      ))}
      {files.isError ? <p className="text-bad">{messageOf(files.error)}</p> : null}
      {files.isSuccess && items.length === 0 ? (
        <p className="rounded border border-dashed border-line py-20 text-center text-quiet">
          {search
            ? "No file has these words in its name, path or alternative text."
            : "No files yet. Drop pictures or documents here, or paste them right into a page’s text."}
        </p>
      ) : (
        <div className={opened ? "grid gap-4 lg:grid-cols-[minmax(0,1fr)_24rem]" : ""}>
          <table className="w-full border-collapse self-start text-left">
            <thead className="sticky top-[46px] z-10 bg-paper text-sm text-quiet">
              <tr className="border-b border-line">
                <th scope="col" className="w-16 py-1.5 font-medium">
                  <span className="sr-only">Picture</span>
                </th>
                <SortHead field="name" sort={sort || "-createdAt"} setSort={setSort}>
                  Name
                </SortHead>
                <SortHead field="path" sort={sort || "-createdAt"} setSort={setSort}>
                  Path
                </SortHead>
                <SortHead field="bytes" downFirst sort={sort || "-createdAt"} setSort={setSort}>
                  Size
                </SortHead>
                <th scope="col" className="py-1.5 pr-3 font-medium">
                  Used
                </th>
                <SortHead
                  field="createdAt"
                  downFirst
                  sort={sort || "-createdAt"}
                  setSort={setSort}
                  className="max-sm:hidden"
                >
                  Uploaded
                </SortHead>
              </tr>
            </thead>
            <tbody>
              {items.map((file) => (
                <tr
                  key={file.id}
                  className={`border-b border-line/60 ${file.id === open ? "bg-wash" : "hover:bg-sheet"}`}
                >
                  <td className="py-1 pr-2">
                    {file.mediaType.startsWith("image/") ? (
                      <img
                        src={file.url}
                        alt=""
                        loading="lazy"
                        className="h-9 w-12 rounded-sm object-cover"
                      />
                    ) : null}
                  </td>
                  <td className="py-1.5 pr-3">
                    <button
                      className="font-medium hover:text-accent hover:underline"
                      onClick={() => setOpen(file.id)}
                    >
                      {file.name}
                    </button>
                  </td>
                  <td className="py-1.5 pr-3 font-mono text-[0.86em] text-quiet">
                    {file.path}{" "}
                    <button
                      className="text-quiet hover:text-ink"
                      aria-label={`Copy the path of ${file.name}`}
                      onClick={() => void copyText(file.path)}
                    >
                      <Copy size={13} aria-hidden />
                    </button>
                  </td>
                  <td className="py-1.5 pr-3 whitespace-nowrap">
                    {bytesInWords(file.bytes)}
                    {file.width ? (
                      <span className="text-quiet">
                        {" "}
                        {file.width} × {file.height}
                      </span>
                    ) : null}
                  </td>
                  <td className="py-1.5 pr-3">
                    {file.uses === 0 ? (
                      <span className="text-quiet">nowhere</span>
                    ) : (
                      `${file.uses} ${file.uses === 1 ? "page" : "pages"}`
                    )}
                  </td>
                  <td className="py-1.5 text-sm text-quiet max-sm:hidden">{when(file.createdAt)}</td>
                </tr>
              ))}
            </tbody>
          </table>
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
          Show more
        </button>
      ) : null}
    </div>
  );
}
