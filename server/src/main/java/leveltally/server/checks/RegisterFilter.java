package leveltally.server.checks;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Currency;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import leveltally.core.checks.Standing;
import leveltally.core.money.Money;
import org.jspecify.annotations.Nullable;

/**
 * What narrows the register, as SQL over {@code check_register n} and its {@code payment p}. The word that the fewest numbers
 * hold leads, where those are few: its numbers are found from an index, and the other words are looked for in them. Where each
 * word is held by many, the numbers are looked through in their order (decision 0032).
 *
 * @param from the rows, to which more may be joined
 * @param where with {@code 1 = 1} first
 */
record RegisterFilter(String from, String where, Map<String, Object> params) {
    /** A word held by more numbers than this leads nowhere faster than a look through all of them. */
    static final int MOST_LED = 100_000;

    private static final String ALL = "check_register n LEFT JOIN payment p ON p.id = n.payment_id";

    /**
     * @param currency in which amounts are typed
     * @param holding how many numbers hold each of these words, counted no further than needed; asked once, or never
     */
    static RegisterFilter of(
            RegisterAsked asked, Currency currency, LocalDate today, Function<List<RegisterWord>, List<Long>> holding) {
        Map<String, Object> params = new HashMap<>();
        List<RegisterWord> words = new ArrayList<>();
        asked.words().forEach(sought -> words.add(new RegisterWord(sought, words.size(), currency)));
        RegisterWord lead = lead(words, holding);
        StringBuilder where = new StringBuilder(" WHERE 1 = 1");
        for (RegisterWord word : words) {
            word.into(params);
            if (word != lead) {
                where.append(" AND ").append(word.held());
            }
        }
        put(where, params, "n.series_id = :series", "series", asked.series());
        put(
                where,
                params,
                "n.state = :state",
                "state",
                asked.standing().map(Standing::name).orElse(null));
        put(where, params, "p.check_date >= :from", "from", asked.from());
        put(where, params, "p.check_date <= :to", "to", asked.to());
        put(
                where,
                params,
                "p.check_date < :young",
                "young",
                asked.olderThan() == null ? null : today.minusDays(asked.olderThan()));
        Money least = amount(asked.amountFrom(), currency, "amountFrom");
        Money most = amount(asked.amountTo(), currency, "amountTo");
        put(where, params, "p.amount_minor >= :least", "least", least == null ? null : least.minor());
        put(where, params, "p.amount_minor <= :most", "most", most == null ? null : most.minor());
        if (least != null || most != null) {
            put(where, params, "p.currency = :currency", "currency", currency.getCurrencyCode());
        }
        String from = lead == null
                ? ALL
                : "(" + lead.finding() + ") lead STRAIGHT_JOIN check_register n ON n.id = lead.id"
                        + " LEFT JOIN payment p ON p.id = n.payment_id";
        return new RegisterFilter(from, where.toString(), params);
    }

    private static @Nullable RegisterWord lead(
            List<RegisterWord> words, Function<List<RegisterWord>, List<Long>> holding) {
        if (words.isEmpty()) {
            return null;
        }
        List<Long> held = holding.apply(words);
        int fewest = 0;
        for (int i = 1; i < words.size(); i++) {
            if (held.get(i) < held.get(fewest)) {
                fewest = i;
            }
        }
        return held.get(fewest) > MOST_LED ? null : words.get(fewest);
    }

    private static @Nullable Money amount(@Nullable String typed, Currency currency, String field) {
        return typed == null || typed.isBlank() ? null : Money.typed(typed, currency, field);
    }

    private static void put(
            StringBuilder where, Map<String, Object> params, String condition, String name, @Nullable Object value) {
        if (value != null) {
            where.append(" AND ").append(condition);
            params.put(name, value);
        }
    }
}
