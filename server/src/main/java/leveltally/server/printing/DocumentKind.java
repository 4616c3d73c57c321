package leveltally.server.printing;

/** What a rendering is. */
enum DocumentKind {
    /** One sheet of the account's stock. */
    CHECK,
    /** The lines beyond the stub, on plain paper. */
    ADVICE
}
