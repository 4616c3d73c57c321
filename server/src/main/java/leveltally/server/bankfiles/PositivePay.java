package leveltally.server.bankfiles;

import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.Dates;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.Layout;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.ledger.BankAccounts;
import leveltally.server.ledger.LayoutInForce;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Whether the bank of an account is told of its checks, and in which layout. */
@Service
public class PositivePay {
    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final BankAccountSetup setup;

    PositivePay(JdbcClient jdbc, BankAccounts accounts, BankAccountSetup setup) {
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.setup = setup;
    }

    /** A version of a layout to choose. */
    public record LayoutChoice(long id, String name) {}

    /** Which layout is in force, and which from when. */
    @Transactional(readOnly = true)
    public String inWords(BankAccount account, LocalDate today) {
        LayoutInForce layout = account.layout();
        if (layout == null) {
            return "";
        }
        Map<Long, String> names = layouts().stream().collect(Collectors.toMap(LayoutChoice::id, LayoutChoice::name));
        String now = names.getOrDefault(layout.on(today), "");
        LocalDate from = layout.from();
        return from == null || !from.isAfter(today)
                ? now
                : now + "; from " + Dates.inWords(from) + " " + names.getOrDefault(layout.next(), "");
    }

    /** Every version of every layout, the newest of each first. */
    @Transactional(readOnly = true)
    public List<LayoutChoice> layouts() {
        return jdbc.sql(
                        "SELECT id, CONCAT(name, CASE version_number WHEN 1 THEN '' ELSE CONCAT(', version ', version_number) END)"
                                + " AS name FROM bank_file_layout WHERE file_use = :told ORDER BY bank_file_layout.name, version_number DESC")
                .param("told", Layout.Use.POSITIVE_PAY.name())
                .query(LayoutChoice.class)
                .list();
    }

    /** Tells the bank of every check posted or voided from now on; what was posted before is not told. */
    @Transactional
    public void begin(Actor by, BankAccountId id, long layout) {
        begin(by, id, layout, null);
    }

    /** @param from the day from which files are made in this layout; null for today */
    @Transactional
    public void begin(Actor by, BankAccountId id, long layout, @Nullable LocalDate from) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        accounts.lock(id).mustBeOpen();
        LayoutChoice chosen = layouts().stream()
                .filter(one -> one.id() == layout)
                .findFirst()
                .orElseThrow(() -> Refusal.invalidField(
                        "no-layout", "layout", "There is no such layout of a file. Choose one from the list."));
        if (from != null && from.isAfter(by.today())) {
            setup.layoutFrom(by, id, layout, from, chosen.name());
        } else {
            setup.positivePay(by, id, layout, chosen.name());
        }
    }

    /** @throws Refusal while the bank has not heard everything */
    @Transactional
    public void end(Actor by, BankAccountId id) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        BankAccount account = accounts.lock(id);
        long waiting = jdbc.sql("SELECT COUNT(*) FROM bank_event WHERE bank_account_id = :id AND file_id IS NULL"
                        + " AND never_reported IS NULL")
                .param("id", id.value())
                .query(Long.class)
                .single();
        if (waiting > 0) {
            throw Refusal.conflict(
                    "bank-not-told",
                    waiting + (waiting == 1 ? " check of " : " checks of ") + account.name()
                            + " waits to be told to the bank. Make that file first, then end positive pay.");
        }
        setup.positivePay(by, id, null, "");
    }
}
