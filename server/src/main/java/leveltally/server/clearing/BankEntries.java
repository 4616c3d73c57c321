package leveltally.server.clearing;

import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.clearing.Movement;
import leveltally.core.ledger.AccountId;
import leveltally.core.ledger.AccountKind;
import leveltally.core.ledger.AccountRole;
import leveltally.core.ledger.EntryId;
import leveltally.core.ledger.JournalEntry;
import leveltally.core.ledger.JournalLine;
import leveltally.core.ledger.LedgerAccount;
import leveltally.core.money.Money;
import leveltally.core.people.Actor;
import leveltally.server.frame.WorkIds;
import leveltally.server.ledger.AccountRoles;
import leveltally.server.ledger.Accounts;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.EntryKind;
import leveltally.server.ledger.EntryLinks;
import leveltally.server.ledger.Ledger;
import leveltally.server.ledger.Periods;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** Enters what the bank moved by itself, and remembers by its words where the last like it went. */
@Component
class BankEntries {
    private static final int SHORTEST_WORDS = 4;
    private static final int LONGEST_WORDS = 120;

    private final Accounts accounts;
    private final AccountRoles roles;
    private final Ledger ledger;
    private final Periods periods;
    private final JdbcClient jdbc;
    private final WorkIds ids;

    BankEntries(Accounts accounts, AccountRoles roles, Ledger ledger, Periods periods, JdbcClient jdbc, WorkIds ids) {
        this.accounts = accounts;
        this.roles = roles;
        this.ledger = ledger;
        this.periods = periods;
        this.jdbc = jdbc;
        this.ids = ids;
    }

    /** Words a movement had, and the account they were entered on. */
    record Remembered(String words, AccountId account) {
        boolean isIn(Movement movement) {
            return movement.text().toLowerCase(Locale.ROOT).contains(words.toLowerCase(Locale.ROOT));
        }
    }

    /**
     * Enters an amount of a movement.
     *
     * @param amount above zero what came in
     * @param on null for the bank's day
     */
    EntryId enter(
            Actor by, BankAccount bank, Movement movement, Money amount, AccountId against, @Nullable LocalDate on) {
        LocalDate date = on == null ? movement.day() : on;
        if (date.isBefore(movement.day()) || date.isAfter(by.today())) {
            throw Refusal.invalidField(
                    "entry-date",
                    "on",
                    "It is entered on a day from the bank's, " + Dates.inWords(movement.day()) + ", to today, "
                            + Dates.inWords(by.today()) + ".");
        }
        mustTake(bank, against, date);
        periods.shareForNew(by, date);
        Money size = amount.isNegative() ? amount.negated() : amount;
        List<JournalLine> lines = amount.isNegative()
                ? List.of(JournalLine.debit(against, size), JournalLine.credit(bank.cash(), size))
                : List.of(JournalLine.debit(bank.cash(), size), JournalLine.credit(against, size));
        String what = movement.text().isEmpty()
                ? movement.isCheck() ? "check " + movement.number() : movement.reference()
                : movement.text();
        String text = "Bank: " + what;
        return ledger.write(
                by,
                EntryKind.BANK,
                new JournalEntry(date, text.length() > 200 ? text.substring(0, 200) : text, lines),
                EntryLinks.NONE);
    }

    private void mustTake(BankAccount bank, AccountId against, LocalDate date) {
        LedgerAccount account = accounts.share(against);
        AccountKind kind = account.facts().kind();
        boolean ahead = roles.find(AccountRole.PREPAYMENTS, bank.currency())
                .filter(against::equals)
                .isPresent();
        if (against.equals(bank.cash()) || kind == AccountKind.PAYABLES || ahead) {
            throw Refusal.invalidField(
                    "entry-account",
                    "ledgerAccount",
                    account.inWords() + " is "
                            + (ahead || kind == AccountKind.PAYABLES
                                    ? "kept by invoices, credits and payments, item by item"
                                    : "the account's own cash")
                            + ". Choose another account, or match the movement with what the ledger has.");
        }
        account.mustTake(date);
    }

    /** Takes an entry back by one with its sides exchanged. */
    EntryId turn(Actor by, EntryId entry, LocalDate on, String why) {
        periods.shareForNew(by, on);
        JournalEntry written = ledger.entry(entry);
        return ledger.write(
                by,
                EntryKind.BANK,
                written.reversed(on, "Taken back: " + written.text()),
                new EntryLinks(null, null, null, entry.value()));
    }

    void remember(Actor by, BankAccount bank, String words, AccountId account) {
        String kept = words.strip();
        if (kept.length() < SHORTEST_WORDS || kept.length() > LONGEST_WORDS) {
            throw Refusal.invalidField(
                    "words-short",
                    "words",
                    "Type at least " + SHORTEST_WORDS + " characters of the movement's text, at most " + LONGEST_WORDS
                            + ".");
        }
        jdbc.sql("""
                        INSERT INTO bank_words (id, bank_account_id, words, account_id, remembered_at, remembered_by)
                        VALUES (?, ?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE remembered_at = VALUES(remembered_at),
                          remembered_by = VALUES(remembered_by), account_id = VALUES(account_id)
                        """)
                .params(
                        ids.supply().next(),
                        bank.id().value(),
                        kept,
                        account.value(),
                        Timestamp.from(by.now()),
                        by.person().value())
                .update();
    }

    /** What is remembered of an account, the longest words first. */
    List<Remembered> remembered(BankAccount bank) {
        List<Remembered> all =
                new ArrayList<>(jdbc.sql("SELECT words, account_id FROM bank_words WHERE bank_account_id = ?")
                        .param(bank.id().value())
                        .query((r, n) -> new Remembered(r.getString("words"), new AccountId(r.getLong("account_id"))))
                        .list());
        all.sort(Comparator.comparing((Remembered one) -> -one.words().length()).thenComparing(Remembered::words));
        return all;
    }

    static Optional<Remembered> proposed(List<Remembered> all, Movement movement) {
        return all.stream().filter(one -> one.isIn(movement)).findFirst();
    }
}
