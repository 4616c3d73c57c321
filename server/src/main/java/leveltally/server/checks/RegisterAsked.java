package leveltally.server.checks;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.checks.SeriesId;
import leveltally.core.checks.Standing;
import leveltally.core.workline.Sought;
import org.jspecify.annotations.Nullable;

/**
 * Which numbers, and in which order.
 *
 * @param series absent: the numbers of every series
 * @param state narrows; all when it is absent
 * @param text words, each of which a number holds somewhere: in itself, its payee, its batch, a reference it pays, its amount
 * @param amountFrom as it is typed, in the currency of the series, or of the first one where every series is looked at
 * @param from the first check date
 * @param olderThan more days than that since the check date
 * @param sortedBy absent: the newest number first
 */
public record RegisterAsked(
        @Nullable Long series,
        @Nullable String state,
        @Nullable String text,
        @Nullable String amountFrom,
        @Nullable String amountTo,
        @Nullable LocalDate from,
        @Nullable LocalDate to,
        @Nullable Integer olderThan,
        @Nullable RegisterOrder sortedBy,
        @Nullable Boolean descending) {
    private static final int MOST_WORDS = 6;

    Optional<SeriesId> id() {
        return Optional.ofNullable(series).map(SeriesId::new);
    }

    Optional<Standing> standing() {
        return state == null || state.isEmpty()
                ? Optional.empty()
                : Optional.of(Standing.named(state)
                        .orElseThrow(() -> Refusal.invalidField(
                                "no-state", "state", "No check is ever “" + state + "”. Choose a state shown.")));
    }

    /** What each word is looked for as. */
    List<Sought> words() {
        if (text == null || text.isBlank()) {
            return List.of();
        }
        List<String> words = Arrays.asList(text.strip().split("\\s+"));
        if (words.size() > MOST_WORDS) {
            throw Refusal.invalidField(
                    "too-many-words", "text", "At most " + MOST_WORDS + " words are looked for together. Use fewer.");
        }
        List<Sought> sought = words.stream().map(Sought::of).toList();
        if (sought.stream().anyMatch(word -> word.isTooShort() && word.number().isEmpty())) {
            throw Refusal.invalidField(
                    "word-too-short", "text", "A word needs at least two characters. Type more of it.");
        }
        return sought;
    }

    RegisterOrder by() {
        return sortedBy == null ? RegisterOrder.NUMBER : sortedBy;
    }

    boolean isDescending() {
        return sortedBy == null || Boolean.TRUE.equals(descending);
    }
}
