package leveltally.core.batches;

import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Arrays;
import java.util.List;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import leveltally.core.Refusal;
import org.jspecify.annotations.Nullable;

/** What a payment is for, as somebody types it into one field. */
public sealed interface Said {
    /** Nothing was typed: its amount may say it. */
    record Nothing() implements Said {}

    /** Invoices, by the vendor's references. */
    record Invoices(List<String> references) implements Said {}

    /** Accounts of the ledger, with no invoice. */
    record Accounts(List<Share> shares) implements Said {}

    /**
     * It was paid ahead of an invoice.
     *
     * @param reference the one its invoice will carry
     * @param usableFrom it is matched with no invoice before; null for at once
     */
    record Ahead(String reference, @Nullable LocalDate usableFrom) implements Said {}

    /**
     * One account.
     *
     * @param code of the account; {@code job} empty for none
     * @param amount as it was typed; null where one account takes all
     */
    record Share(String code, String job, @Nullable String amount) {}

    int LONGEST_REFERENCE = 40;
    Pattern AHEAD = Pattern.compile("(?i)ahead(?:\\s+(.*?))??(?:\\s+from\\s+(\\S+))?");
    Pattern SHARE = Pattern.compile("([^\\s/]+)(?:/(\\S+))?(?:\\s+(-?[0-9][0-9,.]*))?");

    /**
     * References stand between commas or semicolons. Accounts stand between semicolons, each with its job behind a slash and
     * its share behind a space: {@code 5100/PIER 700.00; 5200 525.00}. What was paid ahead of an invoice is said so, with the day
     * from which it may be used where there is one: {@code ahead PO-118 from 2026-12-15}.
     *
     * @param isAccount whether the ledger has an account of that code
     * @throws Refusal where accounts are named and something else as well
     */
    static Said read(String typed, Predicate<String> isAccount) {
        String text = typed.strip();
        if (text.isEmpty()) {
            return new Nothing();
        }
        Matcher ahead = AHEAD.matcher(text);
        if (ahead.matches()) {
            return ahead(ahead.group(1), ahead.group(2));
        }
        List<String> shares = parts(text, ";");
        Matcher first = SHARE.matcher(shares.get(0));
        if (!first.matches() || !isAccount.test(first.group(1))) {
            return new Invoices(parts(text, "[,;]"));
        }
        return new Accounts(
                shares.stream().map(share -> share(share, isAccount)).toList());
    }

    private static Said ahead(@Nullable String reference, @Nullable String from) {
        if (reference == null || reference.length() > LONGEST_REFERENCE) {
            throw refused("Say ahead of which invoice it was paid, by the reference that one will carry, in at most "
                    + LONGEST_REFERENCE + " characters: ahead PO-118.");
        }
        try {
            return new Ahead(reference, from == null ? null : LocalDate.parse(from));
        } catch (DateTimeParseException noDay) {
            throw refused("“" + from + "” is no day. Write it so: ahead " + reference + " from 2026-12-15.");
        }
    }

    private static List<String> parts(String text, String between) {
        List<String> parts = Arrays.stream(text.split(between))
                .map(String::strip)
                .filter(part -> !part.isEmpty())
                .toList();
        if (parts.isEmpty()) {
            throw refused("Say which invoices it was for, or which account.");
        }
        return parts;
    }

    private static Share share(String typed, Predicate<String> isAccount) {
        Matcher share = SHARE.matcher(typed);
        if (!share.matches() || !isAccount.test(share.group(1))) {
            throw refused(
                    "“" + typed + "” is no account with its share. Write them so: 5100/PIER 700.00; 5200 525.00.");
        }
        String job = share.group(2);
        return new Share(share.group(1), job == null ? "" : job, share.group(3));
    }

    private static Refusal refused(String sentence) {
        return Refusal.invalidField("typed-said", "said", sentence);
    }
}
