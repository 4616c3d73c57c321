package leveltally.server.payments;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.ClaimId;
import leveltally.core.ledger.BankAccountId;
import leveltally.core.ledger.EntryId;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import org.jspecify.annotations.Nullable;

/** A payment as other capabilities see it; {@code replaces} the one it was made instead of. */
public record Payment(
        PaymentId id,
        BatchId batch,
        ClaimId claim,
        BankAccountId account,
        String payee,
        Money amount,
        LocalDate checkDate,
        LocalDate ledgerDate,
        PaymentState state,
        @Nullable EntryId postedEntry,
        @Nullable PaymentId replaces) {
    /** The columns {@link #read} needs, of a {@code payment p}. */
    public static final String COLUMNS = """
            p.id AS payment_id, p.batch_id, p.claim_id, p.bank_account_id, p.payee, p.amount_minor, p.currency,
            p.check_date, p.ledger_date, p.state AS payment_state, p.posted_entry_id, p.replaces_id""";

    /** The payment of a row with {@link #COLUMNS}. */
    public static Payment read(ResultSet row) throws SQLException {
        long entry = row.getLong("posted_entry_id");
        long replaces = row.getLong("replaces_id");
        return new Payment(
                new PaymentId(row.getLong("payment_id")),
                new BatchId(row.getLong("batch_id")),
                new ClaimId(row.getLong("claim_id")),
                new BankAccountId(row.getLong("bank_account_id")),
                row.getString("payee"),
                Money.ofMinor(row.getLong("amount_minor"), row.getString("currency")),
                row.getObject("check_date", LocalDate.class),
                row.getObject("ledger_date", LocalDate.class),
                PaymentState.valueOf(row.getString("payment_state")),
                entry == 0 ? null : new EntryId(entry),
                replaces == 0 ? null : new PaymentId(replaces));
    }
}
