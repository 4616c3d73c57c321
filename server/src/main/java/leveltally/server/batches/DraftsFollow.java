package leveltally.server.batches;

import java.util.List;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.DraftClaim;
import leveltally.server.company.Companies;
import leveltally.server.invoices.InvoiceChanging;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** A draft follows what became of an invoice in it: its amounts are reckoned anew, in the same transaction. */
@Component
class DraftsFollow {
    private final JdbcClient jdbc;
    private final Batches batches;
    private final ClaimRows claimRows;
    private final DraftRows rows;
    private final Companies companies;

    DraftsFollow(JdbcClient jdbc, Batches batches, ClaimRows claimRows, DraftRows rows, Companies companies) {
        this.jdbc = jdbc;
        this.batches = batches;
        this.claimRows = claimRows;
        this.rows = rows;
        this.companies = companies;
    }

    @EventListener
    void reckonAnew(InvoiceChanging.Changed changed) {
        jdbc.sql("SELECT batch_id FROM reservation WHERE invoice_id = ?")
                .param(changed.invoice().value())
                .query(Long.class)
                .optional()
                .ifPresent(id -> {
                    BatchEntity batch = batches.lock(new BatchId(id), null);
                    if (batch.state == BatchState.DRAFT) {
                        DraftClaim claim = rows.draft(batch.id).claimOf(changed.invoice());
                        long was = claimRows.amountMinor(batch.id);
                        rows.replace(
                                batch,
                                List.of(claim),
                                List.of(claim),
                                companies.company().graceDays());
                        batches.changed(changed.by(), batch, changed.what(), was);
                    }
                });
    }
}
