/** Small systems of the fits, solved by ml-matrix as the circuits' are. */
import { CholeskyDecomposition, LuDecomposition, Matrix } from "ml-matrix";

type Rows = readonly (readonly number[])[];
const matrixOf = (rows: Rows) => new Matrix(rows.map((row) => [...row]));

/**
 * Solve A·x = b for a symmetric A and give A⁻¹.
 * @throws {RangeError} when A is singular.
 */
export function solveSymmetric(a: Rows, b: readonly number[]): { x: number[]; inverse: number[][] } {
  const lu = new LuDecomposition(matrixOf(a));
  if (lu.isSingular()) throw new RangeError("The system is singular.");
  return { x: lu.solve(Matrix.columnVector([...b])).to1DArray(), inverse: lu.solve(Matrix.eye(b.length)).to2DArray() };
}

/**
 * Solve A·x = b for a symmetric positive definite A, and give ln |A|.
 * @throws {RangeError} when A is not positive definite.
 */
export function solvePositive(a: Rows, b: readonly number[]): { x: number[]; lnDeterminant: number } {
  const factors = new CholeskyDecomposition(matrixOf(a));
  if (!factors.isPositiveDefinite()) throw new RangeError("The system is not positive definite.");
  const x = factors.solve(Matrix.columnVector([...b])).to1DArray();
  const lnDeterminant = factors.lowerTriangularMatrix.diagonal().reduce((sum, root) => sum + 2 * Math.log(root), 0);
  return { x, lnDeterminant };
}
