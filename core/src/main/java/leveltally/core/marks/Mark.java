package leveltally.core.marks;

import java.util.List;

/**
 * Something about a payment that deserves a look.
 *
 * @param key the same for the same matter in every claim and round, so that an answer to it stays with it
 * @param reason in words, one sentence
 */
public record Mark(MarkKind kind, String key, String reason, List<Fact> facts) {
    public Mark {
        facts = List.copyOf(facts);
    }
}
