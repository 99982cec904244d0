/** What can be deleted, and brought back for a while. */
export type Kind = "group" | "plan" | "class" | "voice" | "programme" | "rehearsal";

/** The keys of the queries: what was deleted just now, and all that can be brought back. */
export const justDeleted = ["just deleted"];
export const allDeleted = ["deleted"];
