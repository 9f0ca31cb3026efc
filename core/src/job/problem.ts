/** Something wrong with a job file: where, as a JSON Pointer, and what. */
export interface Problem {
  path: string;
  message: string;
  severity: 'error' | 'warning';
}
