/** Names of things: UUIDs in lower case, made by the client. */
export type Id = string;
