import Bowser from "bowser";

/** A browser as one would call it, from how it names itself (User-Agent, RFC 9110 section 10.1.5). */
export function browserWords(agent: string): string {
  if (agent === "") return "unknown browser";
  const { browser, os } = Bowser.parse(agent);
  if (!browser.name) return agent.length > 40 ? `${agent.slice(0, 39)}…` : agent;
  return os.name ? `${browser.name} on ${os.name}` : browser.name;
}
