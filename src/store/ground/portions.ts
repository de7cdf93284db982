/** How a list is sorted: by one of the fields that its reading knows. */
export interface Sorted {
  field: string;
  down: boolean;
}

/** A portion of a list, and how the list is sorted; undefined: by its first field, downwards. */
export interface Portion {
  sort: Sorted | undefined;
  limit: number;
  offset: number;
}

/** The ORDER BY of a list by its columns, each under the name of its field. */
export function orderOf(columns: Readonly<Record<string, string>>, sort: Sorted | undefined): string {
  const column = (sort && columns[sort.field]) ?? Object.values(columns)[0];
  return `${column} ${!sort || sort.down ? "DESC" : "ASC"} NULLS LAST`;
}

/** The LIMIT and OFFSET of a portion. */
export function limitOf({ limit, offset }: Portion): string {
  return `LIMIT ${Number(limit)} OFFSET ${Number(offset)}`;
}
