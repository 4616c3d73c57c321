package leveltally.server.ledger;

import jakarta.persistence.LockModeType;
import java.time.LocalDate;
import java.util.Currency;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.NewBankAccount;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Changes what may change of a bank account: its names, what it keeps, its smallest payment and its runs. */
@Service
public class BankAccountChanges {
    private final BankAccounts accounts;
    private final AuditTrail audit;

    BankAccountChanges(BankAccounts accounts, AuditTrail audit) {
        this.accounts = accounts;
        this.audit = audit;
    }

    /**
     * What may change of an account.
     *
     * @param floor as it was typed, as is {@code smallest}
     */
    public record Wanted(
            String name,
            String bankName,
            String floor,
            String smallest,
            @Nullable LocalDate thisRun,
            @Nullable LocalDate nextRun) {}

    /** Changes an account; what was printed and told stays as it was. */
    @Transactional
    public void change(Actor by, BankAccountId id, Wanted wanted, long version) {
        by.mayDo(Deed.CHANGE_BANK_ACCOUNT);
        BankAccountEntity account = accounts.row(id, LockModeType.PESSIMISTIC_WRITE);
        mustBeSeen(account, version);
        Map<String, String> before = words(account);
        String name = NewBankAccount.name(wanted.name());
        accounts.mustBeAnotherName(name, account.id);
        account.name = name;
        account.bankName = NewBankAccount.bankName(wanted.bankName());
        account.floorMinor = amount(wanted.floor(), account, "floor");
        account.smallestMinor = amount(wanted.smallest(), account, "smallest");
        if (wanted.nextRun() != null
                && wanted.thisRun() != null
                && !wanted.nextRun().isAfter(wanted.thisRun())) {
            throw Refusal.invalidField("runs", "nextRun", "The next run comes after this one. Choose a later day.");
        }
        account.thisRun = wanted.thisRun();
        account.nextRun = wanted.nextRun();
        Map<String, String> after = words(account);
        if (!after.equals(before)) {
            record(by, account, "change bank account", before, after);
        }
    }

    private static void mustBeSeen(BankAccountEntity account, long version) {
        if (account.version != version) {
            throw Refusal.conflict(
                    "changed-meanwhile",
                    "Somebody changed " + account.name + " meanwhile, or a batch moved its runs. Nothing of yours was"
                            + " saved; look at it as it is now.");
        }
    }

    private static long amount(String typed, BankAccountEntity account, String field) {
        Money amount = Money.typed(typed.isBlank() ? "0" : typed, Currency.getInstance(account.currency), field);
        if (amount.isNegative()) {
            throw Refusal.invalidField(
                    field + "-below-zero", field, "This amount cannot be below zero. Type 0 for none.");
        }
        return amount.minor();
    }

    private static Map<String, String> words(BankAccountEntity account) {
        Map<String, String> words = new TreeMap<>();
        words.put("name", account.name);
        words.put("bank", account.bankName);
        words.put("floor", Money.ofMinor(account.floorMinor, account.currency).plain());
        words.put(
                "smallest payment",
                Money.ofMinor(account.smallestMinor, account.currency).plain());
        words.put("this run", account.thisRun == null ? "" : Dates.inWords(account.thisRun));
        words.put("next run", account.nextRun == null ? "" : Dates.inWords(account.nextRun));
        return words;
    }

    private void record(
            Actor by, BankAccountEntity account, String deed, Map<String, String> before, Map<String, String> after) {
        Map<String, String> told = new TreeMap<>();
        after.forEach((field, now) -> {
            if (!now.equals(before.get(field))) {
                told.put(field, before.get(field) + " → " + now);
            }
        });
        audit.record(by, deed, "bank account " + account.id, told);
    }

    /** Sets the cash the company keeps on an account. */
    @Transactional
    public void keepFloor(Actor by, BankAccountId id, String floor) {
        by.mayDo(Deed.SET_CASH_FLOOR);
        BankAccountEntity account = accounts.row(id, LockModeType.PESSIMISTIC_WRITE);
        Map<String, String> before = words(account);
        account.floorMinor = amount(floor, account, "floor");
        record(by, account, "keep floor", before, words(account));
    }
}
