/** Small dense linear algebra for the fits. */

/**
 * Solve A·x = b for a symmetric positive definite A and give A⁻¹ (Gauss-Jordan with pivoting; the
 * systems here have at most six unknowns).
 * @throws {RangeError} when A is singular.
 */
export function solveSymmetric(
  a: readonly (readonly number[])[],
  b: readonly number[],
): { x: number[]; inverse: number[][] } {
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

/**
 * Solve A·x = b for a symmetric positive definite A of any size by Cholesky's factors, and give ln |A|.
 * @throws {RangeError} when A is not positive definite.
 */
export function solvePositive(
  a: readonly (readonly number[])[],
  b: readonly number[],
): { x: number[]; lnDeterminant: number } {
  const n = b.length;
  const l = a.map((row) => [...row]);
  let lnDeterminant = 0;
  for (let j = 0; j < n; j++) {
    for (let i = j; i < n; i++) for (let k = 0; k < j; k++) l[i]![j]! -= l[i]![k]! * l[j]![k]!;
    if (!(l[j]![j]! > 0)) throw new RangeError("The system is not positive definite.");
    const root = Math.sqrt(l[j]![j]!);
    lnDeterminant += 2 * Math.log(root);
    for (let i = j; i < n; i++) l[i]![j]! /= root;
  }
  const x = [...b];
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i]! -= l[i]![k]! * x[k]!;
    x[i]! /= l[i]![i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i]! -= l[k]![i]! * x[k]!;
    x[i]! /= l[i]![i]!;
  }
  return { x, lnDeterminant };
}
