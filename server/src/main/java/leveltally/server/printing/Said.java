package leveltally.server.printing;

/** One document's answer. */
public record Said(long document, Answer answer, String why) {}
