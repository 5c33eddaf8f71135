/** Stable names of things in a sheet. They are opaque: made once, never changed, never read for meaning. */
export type SheetId = string & { readonly of?: 'sheet' };
export type FieldId = string & { readonly of?: 'field' };
export type RowId = string & { readonly of?: 'row' };
export type RuleId = string & { readonly of?: 'rule' };
export type PartId = string & { readonly of?: 'part' };

/** A cell by the ids of its row and its field. */
export interface CellIds {
  readonly row: RowId;
  readonly field: FieldId;
}
