/** Small dense linear algebra for the fits. */

/**
 * Solve A·x = b for a symmetric positive definite A and give A⁻¹ (Gauss-Jordan with pivoting; the
 * systems here have at most six unknowns).
 * @throws RangeError when A is singular.
 */
export function solveSymmetric(a: readonly (readonly number[])[], b: readonly number[]): { x: number[]; inverse: number[][] } {
  const n = b.length;
  const m = a.map((row, i) => [...row, ...Array.from({ length: n }, (_, j) => (i === j ? 1 : 0)), b[i]!]);
  for (let column = 0; column < n; column++) {
    let pivot = column;
    for (let r = column + 1; r < n; r++) if (Math.abs(m[r]![column]!) > Math.abs(m[pivot]![column]!)) pivot = r;
    [m[column], m[pivot]] = [m[pivot]!, m[column]!];
    const head = m[column]![column]!;
    if (Math.abs(head) < 1e-300) throw new RangeError("The system is singular.");
    for (let k = 0; k <= 2 * n; k++) m[column]![k]! /= head;
    for (let r = 0; r < n; r++) {
      if (r === column) continue;
      const factor = m[r]![column]!;
      if (factor !== 0) for (let k = 0; k <= 2 * n; k++) m[r]![k]! -= factor * m[column]![k]!;
    }
  }
  return { x: m.map((row) => row[2 * n]!), inverse: m.map((row) => row.slice(n, 2 * n)) };
}
