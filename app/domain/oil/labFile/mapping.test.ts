import { guessLabColumns } from "./mapping";

test("a laboratory's usual headings are known", () => {
  const head = [
    "Sample no",
    "Unit",
    "Sampling date",
    "ISO 4406",
    ">4um",
    ">6um",
    ">14um",
    "Water ppm",
    "Visc 40C",
    "TAN",
    "Fe",
    "Cu",
    "Remarks",
  ];
  expect(guessLabColumns(head).columns).toMatchObject({
    number: 0,
    machine: 1,
    takenAt: 2,
    code: 3,
    over4: 4,
    over6: 5,
    over14: 6,
    water: 7,
    kv40: 8,
    acidNumber: 9,
    iron: 10,
    copper: 11,
    note: 12,
  });
});
