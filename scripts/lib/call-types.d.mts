/** The parts of a JSON Schema that the types of calls come to. */
export type CallSchema = {
  $ref?: string;
  type?: string | string[];
  properties?: Record<string, CallSchema>;
  required?: string[];
  enum?: unknown[];
  const?: unknown;
  anyOf?: CallSchema[];
  oneOf?: CallSchema[];
  allOf?: CallSchema[];
};
export type CallTypes = {
  calls: Record<
    string,
    Partial<Record<'answer' | 'body' | 'query' | 'bodyTaken' | 'queryTaken', CallSchema>> | undefined
  >;
  definitions: Record<string, CallSchema>;
};
export function callTypes(names: readonly string[]): CallTypes;
export function answersOf(types: CallTypes): string;
export function keptAnswers(): string;
