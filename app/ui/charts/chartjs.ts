/** The parts of Chart.js in use, registered once. */
import {
  Chart,
  Filler,
  Legend,
  LineController,
  LineElement,
  LinearScale,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartConfiguration,
} from "chart.js";
import annotation from "chartjs-plugin-annotation";

Chart.register(
  Filler,
  Legend,
  LineController,
  LineElement,
  LinearScale,
  LogarithmicScale,
  PointElement,
  ScatterController,
  Tooltip,
  annotation,
);
Chart.defaults.font.family = '"Archivo Variable", system-ui, sans-serif';
Chart.defaults.font.size = 12;

const calm = window.matchMedia("(prefers-reduced-motion: reduce)");

export function makeChart(canvas: HTMLCanvasElement, configuration: ChartConfiguration): Chart {
  return new Chart(canvas, {
    ...configuration,
    options: { ...configuration.options, ...(calm.matches && { animation: false as const }) },
  });
}
