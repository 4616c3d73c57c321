package leveltally.core.people;

/** A person who signs in. */
public record PersonId(long value) {}
