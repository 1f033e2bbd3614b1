/** The little of papaparse that is used here; its own types ask for those of a browser. */
declare module 'papaparse' {
  type Parsed = { data: string[][]; errors: { message: string; row?: number }[] };
  const papa: {
    parse(text: string, options: { skipEmptyLines: 'greedy'; delimiter: string; preview: number }): Parsed;
    unparse(rows: readonly (readonly string[])[], options: { escapeFormulae: boolean }): string;
  };
  export default papa;
}
