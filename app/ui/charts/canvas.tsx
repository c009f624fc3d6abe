/** A chart on a canvas: Chart.js is loaded only when one is shown. */
import type { Chart, ChartConfiguration } from "chart.js";
import { useEffect, useRef, useState } from "react";
import { readTones, type Tone } from "./tones";

export type MakeChart = (tones: Record<Tone, string>) => ChartConfiguration;

export function ChartCanvas({ make, label, height }: { make: MakeChart; label: string; height: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    let chart: Chart | undefined;
    let gone = false;
    const dark = window.matchMedia("(prefers-color-scheme: dark)");
    const draw = () => {
      void import("./chartjs").then(
        ({ makeChart }) => {
          if (gone || !canvas.current) return;
          chart?.destroy();
          chart = makeChart(canvas.current, make(readTones()));
        },
        () => setFailed(true),
      );
    };
    draw();
    dark.addEventListener("change", draw);
    return () => {
      gone = true;
      dark.removeEventListener("change", draw);
      chart?.destroy();
    };
  }, [make]);
  return (
    <div style={{ height }} className="relative">
      {failed ? (
        <p className="pt-6 text-ink-2">The chart could not be loaded. The table has the same data.</p>
      ) : (
        <canvas ref={canvas} role="img" aria-label={label} />
      )}
    </div>
  );
}
