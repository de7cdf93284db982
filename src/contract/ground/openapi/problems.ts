import { problemsOf, type Call } from "../call.ts";

/** A problem document (RFC 9457). */
export const PROBLEM = {
  type: "object",
  required: ["type", "title", "status"],
  properties: {
    type: { type: "string" },
    title: { type: "string" },
    status: { type: "integer" },
    detail: { type: "string" },
    requestId: { type: "string", description: "By which the log finds it" },
    current: { description: "The object as it is now, where a version was stale" },
    errors: {
      type: "array",
      items: {
        type: "object",
        required: ["path", "message"],
        properties: { path: { type: "string" }, message: { type: "string" } },
      },
    },
  },
};

const TITLES: Readonly<Record<number, readonly [name: string, says: string, detail: string]>> = {
  400: [
    "Malformed",
    "Not as documented: a parameter, a header or the form of the body",
    "There is no parameter “colour” here.",
  ],
  401: [
    "NotSignedIn",
    "Nobody has signed in, and no valid token came",
    "Sign in, or send a token as “Authorization: Bearer …”.",
  ],
  403: ["NotAllowed", "The role does not allow it", "This needs the role editor; yours is reader."],
  404: [
    "NotFound",
    "Something that the address names is not there",
    "This route does not exist, or was deleted.",
  ],
  409: ["Conflict", "A stale version, or it cannot be done now", "A newer version was saved meanwhile."],
  412: [
    "Precondition",
    "If-Match names another version than the stored one",
    "A newer version was saved meanwhile.",
  ],
  413: ["TooLarge", "The body is too large", "This takes at most 2 MB."],
  415: [
    "MediaType",
    "The body is in another format",
    "Send JSON, with the header Content-Type: application/json.",
  ],
  422: ["Impossible", "Well formed, and impossible: a message at each field", "The path is missing."],
  429: ["TooMany", "More calls than the limit allows", "Try again in 12 seconds."],
  500: [
    "Failed",
    "A fault of ours, which has been logged",
    "The fault is ours and has been logged. Nothing was saved.",
  ],
  503: [
    "Busy",
    "The database does not answer, or what is asked for is being changed",
    "Nothing was saved. Try again in a moment.",
  ],
};

const LIMIT_HEADERS = ["RateLimit-Policy", "RateLimit"];
const MORE_HEADERS: Readonly<Record<number, readonly string[]>> = {
  429: ["Retry-After"],
  503: ["Retry-After"],
};

/** The answers that problems are, by name. */
export const PROBLEMS = Object.fromEntries(
  Object.entries(TITLES).map(([status, [name, description, detail]]) => [
    name,
    {
      description,
      headers: answerHeaders([...LIMIT_HEADERS, ...(MORE_HEADERS[Number(status)] ?? [])]),
      content: {
        "application/problem+json": {
          schema: { $ref: "#/components/schemas/Problem" },
          example: { type: "about:blank", title: description, status: Number(status), detail },
        },
      },
    },
  ]),
);

/** The problems that a call may answer with, by status. */
export function problemAnswers(statuses: readonly number[]): Record<string, object> {
  return Object.fromEntries(
    statuses.map((status) => [status, { $ref: `#/components/responses/${TITLES[status]![0]}` }]),
  );
}

const text = { type: "string" };

/** The headers that answers carry. */
export const HEADERS = {
  Location: {
    description: "Where what was made is",
    schema: text,
    example: "/api/v1/sites/low-lantern/routes/17",
  },
  ETag: {
    description: "The version of the object, for If-Match and If-None-Match",
    schema: text,
    example: '"3"',
  },
  "RateLimit-Policy": {
    description: "How many calls a minute are answered",
    schema: text,
    example: '"calls";q=1200;w=60',
  },
  RateLimit: {
    description: "How many are left, and for how many seconds",
    schema: text,
    example: '"calls";r=1187;t=42',
  },
  "Retry-After": { description: "Seconds to wait", schema: { type: "integer" }, example: 12 },
};

/** The headers of an answer. */
export function answerHeaders(names: readonly string[]): Record<string, object> {
  return Object.fromEntries(names.map((name) => [name, { $ref: `#/components/headers/${name}` }]));
}

/** The headers that a call takes beside its path and query. */
export function requestHeaders(call: Call): object[] {
  const header = (name: string, description: string) => ({
    name,
    in: "header",
    description,
    required: false,
    schema: text,
  });
  return [
    ...(call.method === "POST"
      ? [
          header(
            "Idempotency-Key",
            "The same call with the same key is answered as the first was, for a day; and done once",
          ),
        ]
      : []),
    ...(problemsOf(call).includes(412)
      ? [header("If-Match", "The version that the change was made on, as ETag told it")]
      : []),
  ];
}
