import ApexCharts, { type ApexOptions } from 'apexcharts';
import { useEffect, useRef } from 'react';

/** A chart, drawn anew when its options change; its figures stand in a table beside it, so it is a picture to a screen reader. */
export default function Chart({ options, label }: { options: ApexOptions; label: string }) {
  const box = useRef<HTMLDivElement>(null);
  const chart = useRef<ApexCharts | undefined>(undefined);
  useEffect(() => {
    if (!box.current) return;
    const made = new ApexCharts(box.current, first.current);
    chart.current = made;
    void made.render();
    return () => {
      chart.current = undefined;
      made.destroy();
    };
  }, []);
  const first = useRef(options);
  useEffect(() => {
    if (options !== first.current) void chart.current?.updateOptions(options, true, false);
  }, [options]);
  return <div ref={box} role="img" aria-label={label} className="w-full" />;
}
