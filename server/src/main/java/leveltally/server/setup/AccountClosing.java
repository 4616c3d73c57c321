package leveltally.server.setup;

import java.util.Arrays;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchState;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.setup.StillUsed;
import leveltally.server.ledger.BankAccountSetup;
import leveltally.server.ledger.BankAccounts;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Closes a bank account that nothing hangs on any more. */
@Service
public class AccountClosing {
    private final JdbcClient jdbc;
    private final BankAccounts accounts;
    private final BankAccountSetup setup;

    AccountClosing(JdbcClient jdbc, BankAccounts accounts, BankAccountSetup setup) {
        this.jdbc = jdbc;
        this.accounts = accounts;
        this.setup = setup;
    }

    /** @throws Refusal naming what still hangs on it */
    @Transactional
    public void close(Actor by, BankAccountId id, String why) {
        by.mayDo(Deed.SET_BANK_ACCOUNT);
        // locked first: no batch is made of it while we count
        String name = accounts.lock(id).name();
        stillUsed(id).mustBeNone(name);
        setup.close(by, id, why);
    }

    /** What keeps an account from being closed. */
    @Transactional(readOnly = true)
    public StillUsed stillUsed(BankAccountId id) {
        return jdbc.sql("""
                        SELECT (SELECT COUNT(*) FROM batch WHERE bank_account_id = :id AND state IN (:live)) AS batches,
                          (SELECT COUNT(*) FROM payment WHERE bank_account_id = :id AND state IN (:open)) AS payments,
                          (SELECT COUNT(*) FROM bank_event WHERE bank_account_id = :id AND file_id IS NULL
                            AND never_reported IS NULL) AS events
                        """)
                .params(Map.of(
                        "id",
                        id.value(),
                        "live",
                        BatchState.live().stream().map(Enum::name).toList(),
                        "open",
                        Arrays.stream(PaymentState.values())
                                .filter(PaymentState::waitsForItsBank)
                                .map(Enum::name)
                                .toList()))
                .query((r, n) -> new StillUsed(r.getLong("batches"), r.getLong("payments"), r.getLong("events")))
                .single();
    }
}
