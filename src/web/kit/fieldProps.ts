/** What every field of a form is given. */
export interface FieldProps {
  readonly name: string;
  readonly label: string;
  readonly wanted?: boolean;
}
