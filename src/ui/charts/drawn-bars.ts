import type { BarsChart } from "./chart.ts";
import { init } from "./engine.ts";
import { optionOf } from "./option.ts";

/** A chart as SVG `widthPx` wide, drawn without a browser; its colours are the tokens of whoever looks at it. */
export function drawnBars(bars: BarsChart, widthPx: number): string {
  const chart = init(null, undefined, {
    renderer: "svg",
    ssr: true,
    width: widthPx,
    height: bars.heightPx,
  });
  try {
    chart.setOption(optionOf(bars, widthPx, (token) => `var(${token})`));
    return chart.renderToSVGString();
  } finally {
    chart.dispose();
  }
}
