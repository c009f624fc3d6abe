/** What other subjects use of assets, in the browser too. */
export { analyteField } from "./analyteLines";
