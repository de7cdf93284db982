import { addressParts, shortenMiddle } from "../core/address/display.ts";

/** An address for the eye: the host carries the weight, the rest is quiet and shortened in its middle. */
export function AddressText({ address, most = 60 }: { address: string; most?: number }) {
  const { before, host, after } = addressParts(address);
  const rest = after === "/" ? "" : after;
  return (
    <span className="font-mono text-[0.86em] break-all" title={address}>
      <span className="text-quiet">{before.startsWith("https") ? "" : before}</span>
      <span className="font-semibold">{host}</span>
      <span className={host ? "text-quiet" : ""}>
        {shortenMiddle(rest, Math.max(12, most - host.length))}
      </span>
    </span>
  );
}
