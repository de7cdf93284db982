import { BarChart, LineChart } from "echarts/charts";
import { GridComponent, LegendComponent, MarkLineComponent, TooltipComponent } from "echarts/components";
import { use as register } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";

register([
  BarChart,
  LineChart,
  GridComponent,
  LegendComponent,
  TooltipComponent,
  MarkLineComponent,
  SVGRenderer,
]);

export { init, type EChartsType } from "echarts/core";
