package leveltally.server.batches;

/** The version of a batch that somebody saw. */
record Versioned(long version) {}
