package leveltally.server.voiding;

/** What is asked for. */
enum UndoingKind {
    UNDO
}
