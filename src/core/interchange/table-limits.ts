/** How much of a table is read, whatever it stands in. A cell's length counts characters. */
export const TABLE_LIMITS = { rows: 60_000, columns: 200, cell: 10_000 };
