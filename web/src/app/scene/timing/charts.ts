import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js';
import type { BarConfiguration, LineConfiguration } from './chart-view';

Chart.register(
  BarController,
  BarElement,
  CategoryScale,
  Filler,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
);

/** A chart on a canvas; only the parts of the library that are used here are loaded. */
export function createChart(canvas: HTMLCanvasElement, config: BarConfiguration | LineConfiguration): Chart {
  return new Chart(canvas, config as ChartConfiguration);
}
