package leveltally.server.batches;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchId;
import leveltally.core.batches.BatchState;
import leveltally.core.batches.ClaimId;
import leveltally.core.batches.Purpose;
import leveltally.core.ledger.WayId;
import leveltally.core.people.Actor;
import leveltally.server.frame.WorkIds;
import leveltally.server.ledger.BankAccount;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Batches that pay once more what another payment paid: its lines are kept as they are, whatever the day is. */
@Service
public class Reissues {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final JdbcTemplate plain;
    private final WorkIds ids;
    private final Batches batches;

    Reissues(EntityManager entities, JdbcClient jdbc, JdbcTemplate plain, WorkIds ids, Batches batches) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.plain = plain;
        this.ids = ids;
        this.batches = batches;
    }

    /**
     * @param kept the claim of the payment that is replaced
     * @param remitTo where the new one goes
     */
    public record NewReissue(
            String name,
            String note,
            BankAccount account,
            WayId way,
            LocalDate checkDate,
            LocalDate ledgerDate,
            ClaimId kept,
            long remitTo) {}

    /** Makes the batch, its claim with every line kept, and reserves what they settle. */
    @Transactional
    public BatchId make(Actor by, NewReissue wanted) {
        BatchEntity batch = BatchEntity.draft(
                by,
                Purpose.REISSUE,
                wanted.name(),
                wanted.note(),
                wanted.account(),
                wanted.account().way(wanted.way()),
                wanted.checkDate());
        batch.ledgerDate = wanted.ledgerDate();
        entities.persist(batch);
        entities.flush();
        batches.addHand(batch, by);
        claim(batch.id, wanted);
        return new BatchId(batch.id);
    }

    private void claim(long batch, NewReissue wanted) {
        WorkIds.Supply supply = ids.supply();
        long claim = supply.next();
        long kept = wanted.kept().value();
        jdbc.sql("""
                        INSERT INTO claim (id, batch_id, vendor_id, remit_to_id, payee, address, currency, amount_minor, version,
                          vendor_number, postal_code, apart, stub_note)
                        SELECT :id, :batch, v.id, r.id, r.payee, r.address, c.currency, c.amount_minor, 0, v.number,
                          r.postal_code, TRUE, c.stub_note
                        FROM claim c JOIN remit_to r ON r.id = :remitTo JOIN vendor v ON v.id = r.vendor_id WHERE c.id = :kept
                        """)
                .param("id", claim)
                .param("batch", batch)
                .param("remitTo", wanted.remitTo())
                .param("kept", kept)
                .update();
        List<Object[]> lines = jdbc
                .sql("SELECT id FROM claim_line WHERE claim_id = ? ORDER BY id")
                .param(kept)
                .query(Long.class)
                .list()
                .stream()
                .map(line -> new Object[] {supply.next(), line})
                .toList();
        plain.batchUpdate("""
                INSERT INTO claim_line (id, claim_id, kind, invoice_id, reference, invoice_date, currency, gross_minor,
                  discount_minor, credit_minor, cash_minor, part, version, kept_of_claim_id, hidden, own_check,
                  usable_from)
                SELECT ?, %d, kind, invoice_id, reference, invoice_date, currency, gross_minor, discount_minor,
                  credit_minor, cash_minor, part, 0, claim_id, hidden, own_check, usable_from FROM claim_line WHERE id = ?
                """.formatted(claim), lines);
        plain.batchUpdate(
                "INSERT INTO claim_line_account (line_id, position, account_id, job, amount_minor)"
                        + " SELECT ?, position, account_id, job, amount_minor FROM claim_line_account WHERE line_id = ?",
                lines);
        reserve(batch, claim);
    }

    private void reserve(long batch, long claim) {
        jdbc.sql("SELECT CONCAT(l.reference, ' stands in the batch “', b.name, '”') FROM claim_line l"
                        + " JOIN reservation r ON r.invoice_id = l.invoice_id JOIN batch b ON b.id = r.batch_id"
                        + " WHERE l.claim_id = ? ORDER BY l.id LIMIT 1")
                .param(claim)
                .query(String.class)
                .optional()
                .ifPresent(where -> {
                    throw taken(where);
                });
        try {
            jdbc.sql(
                            "INSERT INTO reservation (invoice_id, batch_id, claim_id)"
                                    + " SELECT invoice_id, ?, claim_id FROM claim_line WHERE claim_id = ? AND invoice_id IS NOT NULL")
                    .params(batch, claim)
                    .update();
        } catch (DuplicateKeyException meanwhile) {
            throw taken("Something of it was taken into another batch meanwhile");
        }
    }

    private static Refusal taken(String why) {
        return Refusal.conflict(
                "in-another-batch",
                why + ", so it cannot be paid once more now. Post, take it out or withdraw that first.");
    }

    /** The names of the live batches that are about to replace payments, by the claims of those. */
    @Transactional(readOnly = true)
    public Map<ClaimId, String> replacing(Collection<ClaimId> claims) {
        Map<ClaimId, String> found = new HashMap<>();
        if (!claims.isEmpty()) {
            jdbc.sql("""
                            SELECT DISTINCT l.kept_of_claim_id, b.name FROM claim_line l JOIN standing_claim c ON c.id = l.claim_id
                            JOIN batch b ON b.id = c.batch_id AND b.state IN (:live)
                            LEFT JOIN payment p ON p.claim_id = c.id
                            WHERE l.kept_of_claim_id IN (:claims) AND p.posted_entry_id IS NULL
                            """)
                    .param(
                            "live",
                            BatchState.live().stream().map(BatchState::name).toList())
                    .param("claims", claims.stream().map(ClaimId::value).toList())
                    .query((java.sql.ResultSet r) -> {
                        found.put(new ClaimId(r.getLong("kept_of_claim_id")), r.getString("name"));
                    });
        }
        return found;
    }
}
