package leveltally.server.vendors;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.util.Collection;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.batches.BatchState;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.KnownBank;
import leveltally.core.vendors.PayeePlace;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.frame.Seal;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** The rows of proposed changes, and of the addresses they change. */
@Component
class ChangeRows {
    private final JdbcClient jdbc;
    private final JdbcOperations many;
    private final Seal seal;

    ChangeRows(JdbcClient jdbc, JdbcOperations many, Seal seal) {
        this.jdbc = jdbc;
        this.many = many;
        this.seal = seal;
    }

    /** A place with its bank details sealed, which nobody reads but who pays. */
    record Sealed(PayeePlace place, @Nullable String bank) {
        static final Sealed NOWHERE = new Sealed(PayeePlace.NOWHERE, null);

        Sealed withBankOf(Sealed other) {
            return new Sealed(place.withBankOf(other.place), other.bank);
        }
    }

    /** A change that waits. */
    record Waiting(
            long id, long vendor, long remitTo, String what, PersonId proposedBy, PayeePlace before, PayeePlace after) {
        boolean isRebanked() {
            return after.isRebankedFrom(before);
        }
    }

    /** A change as it is proposed. */
    record Proposal(long id, VendorId vendor, long remitTo, Sealed before, Sealed after, String why) {}

    Sealed sealed(RemitTo remitTo, String postalCode, @Nullable BankDetails bank) {
        String canonical = bank == null ? "" : bank.canonical();
        return new Sealed(
                new PayeePlace(
                        remitTo.payee(),
                        String.join("\n", remitTo.lines()),
                        postalCode,
                        bank == null
                                ? KnownBank.NONE
                                : new KnownBank(
                                        seal.fingerprint(canonical),
                                        seal.fingerprint(bank.canonicalAccount()),
                                        bank.masked(),
                                        bank.kind())),
                bank == null ? null : seal.seal(canonical));
    }

    /** An address of a vendor with its row locked until the transaction ends. */
    Sealed lockPlace(VendorId vendor, long at) {
        return jdbc.sql(
                        "SELECT payee, address, postal_code, bank_details_sealed, bank_key, bank_mask, bank_kind, account_key"
                                + " FROM remit_to WHERE id = ? AND vendor_id = ? FOR UPDATE")
                .params(at, vendor.value())
                .query((r, n) -> new Sealed(
                        place(r, "", r.getString("account_key"), KnownBank.kind(r.getString("bank_kind"))),
                        r.getString("bank_details_sealed")))
                .optional()
                .orElseThrow(() -> Refusal.invalidField(
                        "other-vendor", "remitTo", "This is no address of that vendor. Choose one of its own."));
    }

    /** @param side {@code before_}, {@code after_}, or nothing for an address itself */
    private static PayeePlace place(ResultSet r, String side, String accountKey, BankDetails.@Nullable Kind kind)
            throws SQLException {
        return new PayeePlace(
                r.getString(side + "payee"),
                r.getString(side + "address"),
                r.getString(side + "postal_code"),
                new KnownBank(r.getString(side + "bank_key"), accountKey, r.getString(side + "bank_mask"), kind));
    }

    /** The addresses of a vendor that are not in force and that no change waits for. */
    List<Long> forgotten(VendorId vendor) {
        return jdbc.sql(
                        "SELECT r.id FROM remit_to r WHERE r.vendor_id = ? AND NOT r.in_force AND NOT EXISTS"
                                + " (SELECT 1 FROM vendor_change c WHERE c.remit_to_id = r.id AND c.state = 'PROPOSED') ORDER BY r.id")
                .param(vendor.value())
                .query(Long.class)
                .list();
    }

    /** How many changes of an address wait. */
    long waiting(long at) {
        return jdbc.sql("SELECT COUNT(*) FROM vendor_change WHERE remit_to_id = ? AND state = 'PROPOSED'")
                .param(at)
                .query(Long.class)
                .single();
    }

    /** Whether the same address waits for this vendor; its row is locked, so that two clicks come one after the other. */
    boolean waitsAlready(VendorId vendor, PayeePlace wanted) {
        jdbc.sql("SELECT id FROM vendor WHERE id = ? FOR UPDATE")
                .param(vendor.value())
                .query(Long.class)
                .optional()
                .orElseThrow(() -> Refusal.notFound("no-vendor", "There is no such vendor. Choose one from the list."));
        return jdbc.sql("SELECT COUNT(*) FROM vendor_change WHERE vendor_id = ? AND state = 'PROPOSED'"
                                + " AND after_payee = ? AND after_address = ? AND after_bank_key = ?")
                        .params(
                                vendor.value(),
                                wanted.payee(),
                                wanted.address(),
                                wanted.bank().key())
                        .query(Long.class)
                        .single()
                > 0;
    }

    /** Locks what still waits, so that two people decide one after the other. */
    List<Waiting> lock(Collection<Long> wanted) {
        return jdbc.sql("""
                        SELECT id, vendor_id, remit_to_id, what, proposed_by, before_payee, before_address,
                          before_postal_code, before_bank_key, before_bank_mask, after_payee, after_address,
                          after_postal_code, after_bank_key, after_bank_mask, after_bank_kind, after_account_key
                        FROM vendor_change WHERE id IN (:ids) AND state = 'PROPOSED' ORDER BY id FOR UPDATE
                        """)
                .param("ids", wanted)
                .query((r, n) -> new Waiting(
                        r.getLong("id"),
                        r.getLong("vendor_id"),
                        r.getLong("remit_to_id"),
                        r.getString("what"),
                        new PersonId(r.getLong("proposed_by")),
                        // of what was, no more is asked than whether it was another
                        place(r, "before_", "", null),
                        place(
                                r,
                                "after_",
                                r.getString("after_account_key"),
                                KnownBank.kind(r.getString("after_bank_kind")))))
                .list();
    }

    /** Batches under way whose payments were asked for with what an address was before, by name. */
    List<String> batchesAsking(long remitTo) {
        return jdbc.sql("""
                        SELECT DISTINCT b.name FROM claim c JOIN batch b ON b.id = c.batch_id
                        WHERE c.remit_to_id = :at AND b.state IN (:sent)
                          AND NOT EXISTS (SELECT 1 FROM payment p WHERE p.claim_id = c.id) ORDER BY b.name
                        """)
                .param("at", remitTo)
                .param(
                        "sent",
                        BatchState.live().stream()
                                .filter(state -> state != BatchState.DRAFT)
                                .map(BatchState::name)
                                .toList())
                .query(String.class)
                .list();
    }

    void decide(Actor by, List<Long> changes, String state, String why) {
        jdbc.sql("""
                        UPDATE vendor_change SET state = :state, decided_by = :by, decided_at = :at, decided_on = :today,
                          decided_why = :why, version = version + 1 WHERE id IN (:ids)
                        """)
                .param("state", state)
                .param("by", by.person().value())
                .param("at", Timestamp.from(by.now()))
                .param("today", by.today())
                .param("why", why)
                .param("ids", changes)
                .update();
    }

    void putInForce(List<Long> changes) {
        jdbc.sql("""
                        UPDATE remit_to t JOIN vendor_change c ON c.remit_to_id = t.id
                        SET t.payee = c.after_payee, t.address = c.after_address, t.postal_code = c.after_postal_code,
                          t.bank_details_sealed = c.after_bank_sealed, t.bank_key = c.after_bank_key,
                          t.bank_mask = c.after_bank_mask, t.bank_kind = c.after_bank_kind,
                          t.account_key = c.after_account_key, t.in_force = TRUE
                        WHERE c.id IN (:ids)
                        """).param("ids", changes).update();
    }

    /** Writes addresses that are not in force yet. */
    void insertPlaces(List<Proposal> wanted) {
        many.batchUpdate(
                "INSERT INTO remit_to (id, vendor_id, payee, address, postal_code, bank_details_sealed, bank_key,"
                        + " bank_mask, bank_kind, account_key) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)",
                wanted.stream()
                        .map(one -> {
                            PayeePlace place = one.after().place();
                            return new Object[] {
                                one.remitTo(),
                                one.vendor().value(),
                                place.payee(),
                                place.address(),
                                place.postalCode(),
                                one.after().bank(),
                                place.bank().key(),
                                place.bank().mask(),
                                place.bank().kindName(),
                                place.bank().accountKey()
                            };
                        })
                        .toList());
    }

    void insert(Actor by, List<Proposal> proposals) {
        many.batchUpdate("""
                INSERT INTO vendor_change (id, vendor_id, remit_to_id, what, before_payee, before_address,
                  before_postal_code, before_bank_sealed, before_bank_key, before_bank_mask, after_payee, after_address,
                  after_postal_code, after_bank_sealed, after_bank_key, after_bank_mask, after_bank_kind, after_account_key, why,
                  proposed_by, proposed_at, proposed_on, state, decided_why, version)
                VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'PROPOSED', '', 0)
                """, proposals.stream().map(one -> row(by, one)).toList());
    }

    private static Object[] row(Actor by, Proposal one) {
        PayeePlace before = one.before().place();
        PayeePlace after = one.after().place();
        return new Object[] {
            one.id(),
            one.vendor().value(),
            one.remitTo(),
            after.changeFrom(before),
            before.payee(),
            before.address(),
            before.postalCode(),
            one.before().bank(),
            before.bank().key(),
            before.bank().mask(),
            after.payee(),
            after.address(),
            after.postalCode(),
            one.after().bank(),
            after.bank().key(),
            after.bank().mask(),
            after.bank().kindName(),
            after.bank().accountKey(),
            one.why(),
            by.person().value(),
            Timestamp.from(by.now()),
            by.today()
        };
    }
}
