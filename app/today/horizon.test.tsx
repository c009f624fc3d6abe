import { DAY } from "@core";
import { Horizon } from "./horizon";
import { rendered, TEST_NOW } from "~/ui/testing";

const now = TEST_NOW;

describe("horizon", () => {
  const line = {
    pointId: "p",
    faultOf: null,
    label: "Gate north, pump A",
    state: "alarm" as const,
    p10: now + 50 * DAY,
    p50: now + 90 * DAY,
    p90: now + 130 * DAY,
    bookedOn: "2027-01-18",
  };
  const stops = [
    { id: "s", name: "Winter stop", startsOn: "2027-01-18", days: 3 },
    { id: "far", name: "Far stop", startsOn: "2030-01-01", days: 3 },
  ];
  test("says in words what it draws", () => {
    const html = rendered(<Horizon lines={[line]} stops={stops} months={12} />);
    expect(html).toContain("13\u00a0Jan to 3\u00a0Apr, P50 22\u00a0Feb, booked 18\u00a0Jan");
    expect(html).toContain("18\u00a0Jan</text>");
    expect(html).not.toContain("2030");
  });
  test("a span that runs out of the picture ends at its edge", () => {
    const html = rendered(
      <Horizon lines={[{ ...line, p50: null, p90: null, bookedOn: null }]} stops={[]} months={12} />,
    );
    expect(html).toContain("beyond the horizon");
    const [, x, width] = /<rect x="([\d.]+)%"[^>]*width="([\d.]+)%" height="7"/.exec(html)!;
    expect(Number(x) + Number(width)).toBeCloseTo(100, 1);
  });
  test("what has been crossed stands at the left edge and is still seen", () => {
    const html = rendered(
      <Horizon
        lines={[{ ...line, p10: now - 200 * DAY, p50: now - 190 * DAY, p90: now - 180 * DAY }]}
        stops={[]}
        months={12}
      />,
    );
    const [, width] = /width="([\d.]+)%" height="7"/.exec(html)!;
    expect(Number(width)).toBeGreaterThanOrEqual(0.7);
  });
});
