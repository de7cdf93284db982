import { addressParts, shortenMiddle } from "../../core/address/display.ts";

/** An address for the eye: the host carries the weight, the rest is quiet and shortened in its middle. */
export function AddressText(props: { address: string; most?: number; oneLine?: boolean }) {
  const { address, most = 60, oneLine } = props;
  const { before, host, after } = addressParts(address);
  // https is what everybody expects; on a machine of one's own (.localhost) http is, and neither is worth reading.
  const ordinary = /\.localhost(?::\d+)?$/.test(host) ? "http://" : "https://";
  const scheme = before === ordinary ? "" : before;
  const rest = after === "/" && host !== "" ? "" : after;
  return (
    <span
      className={`font-mono text-[0.9em] ${oneLine ? "block truncate" : "wrap-anywhere"}`}
      title={address}
    >
      <span className="text-quiet">{scheme}</span>
      <span className="font-semibold">{host}</span>
      <span className={host ? "text-quiet" : ""}>
        {shortenMiddle(rest, Math.max(12, most - host.length - scheme.length))}
      </span>
    </span>
  );
}
