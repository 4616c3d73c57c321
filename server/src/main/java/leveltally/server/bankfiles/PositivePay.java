package leveltally.server.bankfiles;

import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.bankfiles.Layout;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.ledger.BankAccount;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.ledger.BankAccounts;
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

    /** A layout to choose. */
    public record LayoutChoice(long id, String name) {}

    /** The layouts that are kept, each in its newest version. */
    @Transactional(readOnly = true)
    public List<LayoutChoice> layouts() {
        return jdbc.sql("SELECT MAX(id) AS id, name FROM bank_file_layout WHERE file_use = :told"
                        + " GROUP BY name ORDER BY name")
                .param("told", Layout.Use.POSITIVE_PAY.name())
                .query(LayoutChoice.class)
                .list();
    }

    /** Tells the bank of every check posted or voided from now on; what was posted before is not told. */
    @Transactional
    public void begin(Actor by, BankAccountId id, long layout) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        accounts.lock(id).mustBeOpen();
        LayoutChoice chosen = layouts().stream()
                .filter(one -> one.id() == layout)
                .findFirst()
                .orElseThrow(() -> Refusal.invalidField(
                        "no-layout", "layout", "There is no such layout of a file. Choose one from the list."));
        setup.positivePay(by, id, layout, chosen.name());
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
