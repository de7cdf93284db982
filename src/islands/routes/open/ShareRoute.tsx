import { useQuery } from "@tanstack/react-query";
import { Download } from "lucide-react";
import type { Route } from "../../../core/routes/route.ts";
import { spoken } from "../../../core/routes/slugs/spoken.ts";
import * as say from "../words.ts";

const PNG_PIXELS = 1024;

/** How a route's address is said aloud, and its QR code (ISO/IEC 18004) for print. */
export function ShareRoute({ route }: { route: Route }) {
  const code = useQuery({
    queryKey: ["qr", route.url],
    queryFn: async () => {
      const { default: QRCode } = await import("qrcode");
      const options = { errorCorrectionLevel: "M", margin: 4 } as const;
      return {
        svg: await QRCode.toString(route.url, { ...options, type: "svg" }),
        png: await QRCode.toDataURL(route.url, { ...options, width: PNG_PIXELS }),
      };
    },
    staleTime: Infinity,
  }).data;
  const name = `qr${route.address.replace(/[^a-z0-9]+/gi, "-")}`;
  return (
    <div className="mt-3 flex gap-3">
      {code ? (
        <img
          className="size-24 rounded border border-line bg-[white]"
          src={`data:image/svg+xml,${encodeURIComponent(code.svg)}`}
          alt={say.qrCodeOf(route.url)}
        />
      ) : (
        <div className="size-24 rounded border border-line" />
      )}
      <div className="min-w-0 text-sm">
        <p>
          <span className="text-quiet">{say.saidAloud}</span> “{spoken(route.url)}”
        </p>
        {code ? (
          <p className="mt-2 flex flex-wrap gap-2">
            <a
              className="action py-0.5"
              download={`${name}.svg`}
              href={`data:image/svg+xml,${encodeURIComponent(code.svg)}`}
            >
              <Download size={13} aria-hidden /> {say.qrAsSvg}
            </a>
            <a className="action py-0.5" download={`${name}.png`} href={code.png}>
              <Download size={13} aria-hidden /> {say.qrAsPng}
            </a>
          </p>
        ) : null}
      </div>
    </div>
  );
}
