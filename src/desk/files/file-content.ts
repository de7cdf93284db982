import { fileTypeFromBuffer } from "file-type";
import { imageSize } from "image-size";
import { invalid } from "../ground/problem.ts";
import { isVectorPicture, vectorFault } from "./vector-picture.ts";

/** What an uploaded file is, judged by its content and not by its name. */
export interface FileContent {
  mediaType: string;
  extension: string;
  width: number | null;
  height: number | null;
}

const PICTURES: Readonly<Record<string, string>> = {
  "image/png": "png",
  "image/jpeg": "jpg",
  "image/gif": "gif",
  "image/webp": "webp",
  "image/avif": "avif",
};
const DOCUMENTS: Readonly<Record<string, string>> = {
  "application/pdf": "pdf",
  "application/zip": "zip",
  "application/epub+zip": "epub",
  "application/gzip": "gz",
  "audio/mpeg": "mp3",
  "audio/ogg": "ogg",
  "video/mp4": "mp4",
  "video/webm": "webm",
  "application/vnd.openxmlformats-officedocument.wordprocessingml.document": "docx",
  "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet": "xlsx",
  "application/vnd.oasis.opendocument.text": "odt",
  "application/vnd.oasis.opendocument.spreadsheet": "ods",
};
const TEXTS: Readonly<Record<string, string>> = {
  txt: "text/plain",
  csv: "text/csv",
  md: "text/markdown",
  ics: "text/calendar",
  gpx: "application/gpx+xml",
};
const PICTURE_NAMES = /\.(?:png|jpe?g|gif|webp|avif|svg)$/i;
const MAX_PIXELS = 100_000_000;

/** Judges an upload by its bytes. Throws a Problem that says what the file is when it cannot be taken. */
export async function judgeContent(name: string, content: Uint8Array): Promise<FileContent> {
  if (content.length === 0) throw refused("The file is empty.");
  const found = await fileTypeFromBuffer(content);
  if (found && found.mime in PICTURES) return picture(name, content, found.mime, PICTURES[found.mime]!);
  const text = readText(content);
  if (text !== undefined && isVectorPicture(text)) return vectorPicture(name, text, content);
  if (PICTURE_NAMES.test(name)) {
    const really = found
      ? `${found.ext.toUpperCase()} (${found.mime})`
      : text === undefined
        ? "no picture that browsers show"
        : "text";
    throw refused(`“${name}” is called a picture, but its content is ${really}. Choose the picture itself.`);
  }
  if (found && found.mime in DOCUMENTS) return plain(found.mime, DOCUMENTS[found.mime]!);
  const extension = /\.([a-z0-9]+)$/i.exec(name)?.[1]?.toLowerCase() ?? "";
  if (text !== undefined && extension in TEXTS) return plain(TEXTS[extension]!, extension);
  const what = found
    ? found.mime
    : /^\s*(?:<!doctype html|<html)/i.test(text ?? "")
      ? "HTML, which could run scripts on the site"
      : "of a kind that is not known";
  throw refused(
    `“${name}” is ${what}. Pictures, PDF, office documents, sound, film, zip and plain text can be uploaded.`,
  );
}

function picture(name: string, content: Uint8Array, mediaType: string, extension: string): FileContent {
  try {
    const { width, height, orientation } = imageSize(content);
    if (width * height > MAX_PIXELS)
      throw refused(`“${name}” has ${width} × ${height} pixels; make it smaller.`);
    const turned = (orientation ?? 1) >= 5;
    return { mediaType, extension, width: turned ? height : width, height: turned ? width : height };
  } catch (error) {
    if (error instanceof TypeError || error instanceof RangeError)
      throw refused(`“${name}” is damaged: its size in pixels cannot be read.`);
    throw error;
  }
}

// An SVG is a document: one that could run a script or fetch from elsewhere is refused, with what was found in it.
function vectorPicture(name: string, text: string, content: Uint8Array): FileContent {
  const fault = vectorFault(text);
  if (fault)
    throw refused(
      `“${name}” holds ${fault}: an SVG with it could do more than be looked at. Save it as a plain SVG, or as PNG.`,
    );
  try {
    const { width, height } = imageSize(content);
    return {
      mediaType: "image/svg+xml",
      extension: "svg",
      width: Math.round(width),
      height: Math.round(height),
    };
  } catch {
    return { mediaType: "image/svg+xml", extension: "svg", width: null, height: null }; // an SVG need not say its size
  }
}

function plain(mediaType: string, extension: string): FileContent {
  return { mediaType, extension, width: null, height: null };
}

function readText(content: Uint8Array): string | undefined {
  try {
    const text = new TextDecoder("utf-8", { fatal: true }).decode(content);
    return text.includes("\0") ? undefined : text;
  } catch {
    return undefined; // no UTF-8: a binary file
  }
}

function refused(message: string): Error {
  return invalid([{ path: "file", message }]);
}
