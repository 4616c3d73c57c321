package leveltally.server.selection;

import java.time.LocalDate;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.selection.Criteria;
import leveltally.core.vendors.VendorId;
import leveltally.server.ledger.BankAccount;
import org.jspecify.annotations.Nullable;

/**
 * The sentence of the Due station as a screen sends it.
 *
 * @param account the bank account to pay from
 * @param ledgerDate null: the check date
 * @param nextRun null: discounts do not matter
 * @param out entry numbers taken out by hand; {@code add} those taken in by hand, due or not
 */
public record DueQuestion(
        long account,
        LocalDate checkDate,
        @Nullable LocalDate ledgerDate,
        LocalDate dueBy,
        @Nullable LocalDate nextRun,
        @Nullable Long vendor,
        @Nullable List<Long> out,
        @Nullable List<Long> add) {
    private static final int MOST_BY_HAND = 5_000;

    public DueQuestion {
        out = out == null ? List.of() : List.copyOf(out);
        add = add == null ? List.of() : List.copyOf(add);
        if (out.size() > MOST_BY_HAND || add.size() > MOST_BY_HAND) {
            throw Refusal.invalid(
                    "too-many-by-hand", "At most 5,000 invoices can be marked by hand. Narrow the dates.");
        }
    }

    BankAccountId bankAccount() {
        return new BankAccountId(account);
    }

    Criteria criteria(BankAccount from, int graceDays) {
        return new Criteria(
                from.currency(),
                from.method(),
                checkDate,
                ledgerDate == null ? checkDate : ledgerDate,
                dueBy,
                nextRun,
                vendor == null ? null : new VendorId(vendor),
                graceDays);
    }
}
