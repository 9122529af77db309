/**
 * Two roles of the database stand between a query and the rows, as the second wall behind the scope of the queries.
 * `glenfold_app` does the practices' work and meets row-level security; `glenfold_door` finds out who is
 * asking, and sees no practice's records. Neither may log in: the server's own role changes into them.
 */
export const APP_ROLE = 'glenfold_app';
export const DOOR_ROLE = 'glenfold_door';
