package leveltally.core.ledger;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/** What bringing in a list of accounts would do, row by row; the list and the ledger go in, a decision comes out. */
public final class AccountList {
    private AccountList() {}

    /** A row as it was read; {@code line} counts from 1, the heading included. */
    public record Row(int line, String code, String name, String kind) {}

    /** What becomes of a row. */
    public enum Outcome {
        NEW("new"),
        RENAMED("gets another name"),
        SAME("known already"),
        REFUSED("cannot be brought in");

        private final String words;

        Outcome(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * @param account the account it becomes; null for one that is refused
     * @param why in words where there is something to say
     */
    public record Decision(
            Row row, Outcome outcome, @Nullable AccountFacts account, String why) {}

    /** Decides each row by itself, so that a bad one holds up no good one. */
    public static List<Decision> decide(List<Row> rows, List<AccountFacts> known) {
        Map<String, AccountFacts> byCode = new HashMap<>();
        known.forEach(account -> byCode.put(key(account.code()), account));
        Map<String, Integer> seen = new HashMap<>();
        List<Decision> decisions = new ArrayList<>();
        for (Row row : rows) {
            Integer before = seen.putIfAbsent(key(row.code()), row.line());
            decisions.add(
                    before == null
                            ? decide(row, byCode.get(key(row.code())))
                            : refused(row, "Its code stands in line " + before + " already."));
        }
        return decisions;
    }

    private static Decision decide(Row row, @Nullable AccountFacts known) {
        AccountKind kind = AccountKind.written(row.kind()).orElse(null);
        if (kind == null) {
            return refused(row, "“" + row.kind().strip() + "” is no kind of account.");
        }
        AccountFacts wanted;
        try {
            wanted = new AccountFacts(row.code(), row.name(), kind);
        } catch (Refusal cannotBe) {
            return refused(row, cannotBe.sentence());
        }
        if (known == null) {
            return new Decision(row, Outcome.NEW, wanted, "");
        }
        if (known.kind() != kind) {
            return refused(
                    row,
                    "Account " + known.code() + " is of the kind "
                            + known.kind().words() + ", and that never changes. Give the other one another code.");
        }
        return known.name().equals(wanted.name())
                ? new Decision(row, Outcome.SAME, known, "")
                : new Decision(row, Outcome.RENAMED, known.named(wanted.name()), "was " + known.name());
    }

    private static Decision refused(Row row, String why) {
        return new Decision(row, Outcome.REFUSED, null, why);
    }

    // the database tells no case apart either
    private static String key(String code) {
        return code.strip().toLowerCase(Locale.ROOT);
    }
}
