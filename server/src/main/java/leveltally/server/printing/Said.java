package leveltally.server.printing;

import leveltally.core.printing.Answer;

/** One document's answer. */
public record Said(long document, Answer answer, String why) {}
