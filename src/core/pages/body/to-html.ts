import { DOMSerializer } from "@tiptap/pm/model";
import { escapeAttribute, escapeText } from "entities/escape";
import { bodyDocument, bodySchema, type Body } from "./body.ts";
import { isOptionalWhenEmpty } from "./picture.ts";

const VOID = new Set(["br", "hr", "img"]);

// ProseMirror's own serializer writes into any document that can make elements and text. Given this one it
// writes strings, so server and worker need no DOM, and a link with bold words inside stays one link.
class Piece {
  readonly nodeType: number;
  readonly name: string;
  private readonly children: Piece[] = [];
  private readonly attributes: string[] = [];
  constructor(nodeType: number, name: string) {
    this.nodeType = nodeType;
    this.name = name;
  }
  setAttribute(name: string, value: unknown): void {
    this.attributes.push(` ${name}="${escapeAttribute(String(value))}"`);
  }
  appendChild(child: Piece): Piece {
    this.children.push(child);
    return child;
  }
  toString(): string {
    if (this.nodeType === 3) return escapeText(this.name);
    const inside = this.children.join("");
    if (this.nodeType === 11 || (inside === "" && isOptionalWhenEmpty(this.name))) return inside;
    const tag = `<${this.name}${this.attributes.join("")}>`;
    return VOID.has(this.name) ? tag : `${tag}${inside}</${this.name}>`;
  }
}

const paper = {
  createElement: (name: string) => new Piece(1, name.toLowerCase()),
  createElementNS: (_space: string, name: string) => new Piece(1, name),
  createTextNode: (text: string) => new Piece(3, text),
  createDocumentFragment: () => new Piece(11, ""),
};

/** A body's HTML as it is stored: only a body that has passed the gate is written as one. */
export type BodyHtml = string & { readonly __admitted: unique symbol };

/** Writes a body as HTML, with links as the author left them (`data-override` included). */
export function bodyToHtml(body: Body): BodyHtml;
export function bodyToHtml(body: unknown): string;
export function bodyToHtml(body: unknown): string {
  const serializer = DOMSerializer.fromSchema(bodySchema());
  const fragment = serializer.serializeFragment(bodyDocument(body).content, {
    document: paper as unknown as Document,
  });
  return String(fragment);
}
