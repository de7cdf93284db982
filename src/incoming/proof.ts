import { createHmac } from "node:crypto";

/** How an installation shows that it is itself: an answer to a question that only who has its secret can give (HMAC, RFC 2104). */
export function proofWith(secret: string): (question: string) => string {
  return (question) => createHmac("sha256", secret).update(`leads here: ${question}`).digest("base64url");
}
