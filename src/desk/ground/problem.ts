import type { z } from "zod";

/** A message at the field it is about; `path` is dotted, empty for the whole input. */
export interface FieldError {
  path: string;
  message: string;
}

/** A refusal as plain values. */
export interface ProblemParts {
  status: number;
  title: string;
  detail: string;
  errors: FieldError[];
  more: Record<string, unknown>;
  headers: Record<string, string>;
}

/** A refusal that the caller can mend or must know of; becomes `application/problem+json` (RFC 9457). */
export class Problem extends Error {
  /** A refusal that came from another thread as its parts. */
  static of({ status, title, detail, ...options }: ProblemParts): Problem {
    return new Problem(status, title, detail, options);
  }

  readonly status: number;
  readonly title: string;
  readonly errors: FieldError[];
  /** Further members of the problem document, such as the current object of a stale save. */
  readonly more: Record<string, unknown>;
  readonly headers: Record<string, string>;

  constructor(
    status: number,
    title: string,
    detail: string,
    options: { errors?: FieldError[]; more?: Record<string, unknown>; headers?: Record<string, string> } = {},
  ) {
    super(detail);
    this.status = status;
    this.title = title;
    this.errors = options.errors ?? [];
    this.more = options.more ?? {};
    this.headers = options.headers ?? {};
  }

  /** What crosses from one thread to another. */
  parts(): ProblemParts {
    const { status, title, message: detail, errors, more, headers } = this;
    return { status, title, detail, errors, more, headers };
  }

  /** The problem document. */
  toJSON(): Record<string, unknown> {
    return {
      type: "about:blank",
      title: this.title,
      status: this.status,
      detail: this.message,
      ...(this.errors.length > 0 ? { errors: this.errors } : {}),
      ...this.more,
    };
  }
}

/** Input that is well-formed and means something impossible: messages at their fields. */
export function invalid(errors: FieldError[]): Problem {
  return new Problem(422, "This cannot be saved as it is", errors.map(({ message }) => message).join(" "), {
    errors,
  });
}

/** Something that is not there. */
export function notFound(what: string): Problem {
  return new Problem(404, "Not found", `${what} does not exist, or was deleted.`);
}

/** A save over a newer version: refused, with the current object. */
export function stale(current: unknown): Problem {
  return new Problem(
    409,
    "Changed by somebody else",
    "A newer version was saved meanwhile. Nothing of yours was written; compare the two and save again.",
    {
      more: { current },
    },
  );
}

/** The issues of a Zod check as messages at their fields. */
export function fieldErrors(error: z.ZodError): FieldError[] {
  return error.issues.flatMap((issue) => {
    if (issue.code === "unrecognized_keys") {
      return issue.keys.map((key) => ({
        path: [...issue.path, key].join("."),
        message: `There is no field “${key}” here.`,
      }));
    }
    return [{ path: issue.path.join("."), message: issue.message }];
  });
}

/** A value from outside, checked by its schema. Throws a 422 with a message at each field that is wrong. */
export function checked<S extends z.ZodType>(schema: S, value: unknown): z.output<S> {
  const result = schema.safeParse(value);
  if (result.success) return result.data;
  const errors = fieldErrors(result.error);
  throw new Problem(422, "This cannot be taken as it is", errors.map(({ message }) => message).join(" "), {
    errors,
  });
}
