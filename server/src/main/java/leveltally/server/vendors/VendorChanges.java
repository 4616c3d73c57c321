package leveltally.server.vendors;

import java.sql.Timestamp;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.people.PersonId;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.TwoPeople;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Seal;
import leveltally.server.frame.WorkIds;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Addresses and bank details of vendors: proposed by one person, in force when a second confirms. The database refuses any
 * other way to change them.
 */
@Service
public class VendorChanges {
    private static final int MOST_WAITING = 500;

    private final JdbcClient jdbc;
    private final JdbcOperations many;
    private final WorkIds ids;
    private final Seal seal;
    private final AuditTrail audit;

    VendorChanges(JdbcClient jdbc, JdbcOperations many, WorkIds ids, Seal seal, AuditTrail audit) {
        this.jdbc = jdbc;
        this.many = many;
        this.ids = ids;
        this.seal = seal;
        this.audit = audit;
    }

    /** Where payments go and by which account, as it is or shall be. */
    private record Place(
            String payee,
            String address,
            String postalCode,
            @Nullable String sealed,
            String bankKey,
            String bankMask) {
        static final Place NOWHERE = new Place("", "", "", null, "", "");

        String what(Place before) {
            boolean moved = !payee.equals(before.payee)
                    || !address.equals(before.address)
                    || !postalCode.equals(before.postalCode);
            boolean rebanked = !bankKey.equals(before.bankKey);
            if (before.payee.isEmpty()) {
                return "new address";
            }
            return moved && rebanked ? "address and bank details" : moved ? "address" : rebanked ? "bank details" : "";
        }
    }

    /** The address a vendor starts with. */
    record First(
            VendorId vendor,
            RemitTo remitTo,
            String postalCode,
            @Nullable BankDetails bank) {}

    /** Adds addresses that wait for a second person; one insert for many. */
    void propose(Actor by, List<First> firsts, String why) {
        WorkIds.Supply supply = ids.supply();
        List<Object[]> places = new ArrayList<>();
        List<Object[]> changes = new ArrayList<>();
        for (First first : firsts) {
            Place after = place(first.remitTo(), first.postalCode(), first.bank());
            long id = supply.next();
            places.add(new Object[] {
                id,
                first.vendor().value(),
                after.payee,
                after.address,
                after.postalCode,
                after.sealed,
                after.bankKey,
                after.bankMask
            });
            changes.add(row(by, supply.next(), first.vendor().value(), id, Place.NOWHERE, after, why));
        }
        insertPlaces(places);
        insertChanges(changes);
    }

    /**
     * What somebody wants an address to become.
     *
     * @param remitTo the address to change; null for a further one
     * @param keepBank true to leave the bank details as they are; {@code bank} null takes them away otherwise
     */
    public record Wanted(
            @Nullable Long remitTo,
            String payee,
            List<String> lines,
            String postalCode,
            boolean keepBank,
            @Nullable BankDetails bank,
            String why) {}

    /** Proposes a change; nothing about payments changes until somebody else confirms it. */
    @Transactional
    public long propose(Actor by, VendorId vendor, Wanted wanted) {
        by.mayDo(Deed.PROPOSE_VENDOR_CHANGE);
        check(wanted);
        Place before = Place.NOWHERE;
        Long at = wanted.remitTo();
        if (at != null) {
            before = lockPlace(vendor, at);
            long waiting = jdbc.sql("SELECT COUNT(*) FROM vendor_change WHERE remit_to_id = ? AND state = 'PROPOSED'")
                    .param(at)
                    .query(Long.class)
                    .single();
            if (waiting > 0) {
                throw Refusal.conflict(
                        "change-waits",
                        "A change of this address waits already. Have it confirmed, refused or taken back first.");
            }
        }
        RemitTo remitTo = new RemitTo(wanted.payee().strip(), wanted.lines());
        Place after = place(remitTo, wanted.postalCode().strip(), wanted.bank());
        if (wanted.keepBank()) {
            after = new Place(
                    after.payee, after.address, after.postalCode, before.sealed, before.bankKey, before.bankMask);
        }
        String what = after.what(before);
        if (what.isEmpty()) {
            throw Refusal.invalid("nothing-changed", "That is what the vendor has already. Change something first.");
        }
        WorkIds.Supply supply = ids.supply();
        if (at == null) {
            refuseTwice(vendor, after);
            at = supply.next();
            insertPlaces(List.<Object[]>of(new Object[] {
                at,
                vendor.value(),
                after.payee,
                after.address,
                after.postalCode,
                after.sealed,
                after.bankKey,
                after.bankMask
            }));
        }
        long id = supply.next();
        insertChanges(List.<Object[]>of(
                row(by, id, vendor.value(), at, before, after, wanted.why().strip())));
        audit.record(by, "propose vendor change", subject(vendor.value()), told(what, before, after, wanted.why()));
        return id;
    }

    /** A second click would wait beside the first. */
    private void refuseTwice(VendorId vendor, Place wanted) {
        // the vendor's row is locked, so that two clicks come one after the other
        jdbc.sql("SELECT id FROM vendor WHERE id = ? FOR UPDATE")
                .param(vendor.value())
                .query(Long.class)
                .optional()
                .orElseThrow(() -> Refusal.notFound("no-vendor", "There is no such vendor. Choose one from the list."));
        long same = jdbc.sql("SELECT COUNT(*) FROM vendor_change WHERE vendor_id = ? AND state = 'PROPOSED'"
                        + " AND after_payee = ? AND after_address = ? AND after_bank_key = ?")
                .params(vendor.value(), wanted.payee, wanted.address, wanted.bankKey)
                .query(Long.class)
                .single();
        if (same > 0) {
            throw Refusal.conflict(
                    "change-waits", "The same address waits for a second person already. Look at the vendor.");
        }
    }

    private static void check(Wanted wanted) {
        List<String> lines = wanted.lines().stream()
                .map(String::strip)
                .filter(line -> !line.isEmpty())
                .toList();
        if (wanted.payee().isBlank() || wanted.payee().length() > 120) {
            throw Refusal.invalidField("payee", "payee", "Name whom the payment is made out to, in 120 characters.");
        }
        if (lines.isEmpty() || lines.size() > 5 || String.join("\n", lines).length() > 300) {
            throw Refusal.invalidField("address", "lines", "An address has one to five lines.");
        }
        if (wanted.why().isBlank()) {
            throw Refusal.invalidField(
                    "reason-missing",
                    "why",
                    "Say where this comes from, such as a letter or a call you made yourself.");
        }
    }

    private record Change(
            long id, long vendor, long remitTo, String what, PersonId proposedBy, Place before, Place after) {
        /** True when money would go to another account. */
        boolean rebanked() {
            return !after.bankKey.isEmpty() && !after.bankKey.equals(before.bankKey);
        }
    }

    /**
     * Puts a change in force.
     *
     * @param typed the bank details as the second person typed them, unseen; null where the change has no new ones
     * @return the names of batches under way whose payments were asked for with what was before
     */
    @Transactional
    public List<String> confirm(Actor by, long id, @Nullable BankDetails typed) {
        by.mayDo(Deed.CONFIRM_VENDOR_CHANGE);
        Change change = lock(id);
        TwoPeople.check(change.proposedBy(), by.person());
        if (change.rebanked() && typed == null) {
            throw Refusal.invalidField(
                    "type-account",
                    "account",
                    "Type the account number from the vendor's own letter: it is not shown, and both must agree.");
        }
        if (change.rebanked() && !seal.fingerprint(typed.canonical()).equals(change.after().bankKey)) {
            throw Refusal.invalidField(
                    "accounts-differ",
                    "account",
                    "This is not the account that was proposed. Compare the letter again; if the letter says this one, refuse "
                            + "the change.");
        }
        decide(by, List.of(id), "CONFIRMED", "");
        putInForce(List.of(id));
        audit.record(
                by,
                "confirm vendor change",
                subject(change.vendor()),
                told(change.what(), change.before(), change.after(), ""));
        return jdbc.sql("""
                        SELECT DISTINCT b.name FROM claim c JOIN batch b ON b.id = c.batch_id
                        WHERE c.remit_to_id = :at AND b.state IN ('IN_APPROVAL', 'APPROVED', 'NUMBERED')
                          AND NOT EXISTS (SELECT 1 FROM payment p WHERE p.claim_id = c.id) ORDER BY b.name
                        """).param("at", change.remitTo()).query(String.class).list();
    }

    /** Puts many in force at once, as after bringing in a file; one record tells of them all. */
    @Transactional
    public int confirmAll(Actor by, Collection<Long> wanted) {
        by.mayDo(Deed.CONFIRM_VENDOR_CHANGE);
        List<Change> changes = wanted.isEmpty() ? List.of() : lock(wanted);
        if (changes.isEmpty()) {
            throw decidedAlready();
        }
        changes.forEach(change -> TwoPeople.check(change.proposedBy(), by.person()));
        if (changes.stream().anyMatch(Change::rebanked)) {
            throw Refusal.conflict(
                    "type-account",
                    "Some of these have new bank details. Confirm those one by one, typing the account number of each.");
        }
        List<Long> found = changes.stream().map(Change::id).toList();
        decide(by, found, "CONFIRMED", "");
        putInForce(found);
        audit.record(
                by,
                "confirm vendor changes",
                "vendors",
                Map.of(
                        "count",
                        found.size(),
                        "vendors",
                        changes.stream().map(Change::vendor).distinct().toList()));
        return found.size();
    }

    @Transactional
    public void refuse(Actor by, long id, String why) {
        by.mayDo(Deed.CONFIRM_VENDOR_CHANGE);
        Change change = lock(id);
        TwoPeople.check(change.proposedBy(), by.person());
        if (why.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why not, so that it can be proposed better.");
        }
        decide(by, List.of(id), "REFUSED", why.strip());
        audit.record(
                by,
                "refuse vendor change",
                subject(change.vendor()),
                told(change.what(), change.before(), change.after(), why));
    }

    /** Takes back what one proposed oneself. */
    @Transactional
    public void takeBack(Actor by, long id) {
        by.mayDo(Deed.PROPOSE_VENDOR_CHANGE);
        Change change = lock(id);
        if (!change.proposedBy().equals(by.person())) {
            throw Refusal.notAllowed(
                    "not-yours", "Somebody else proposed this change. It is confirmed or refused, not taken back.");
        }
        decide(by, List.of(id), "TAKEN_BACK", "");
        audit.record(
                by,
                "take back vendor change",
                subject(change.vendor()),
                told(change.what(), change.before(), change.after(), ""));
    }

    /** A change as screens show it; bank details are masked. */
    public record Told(
            long id,
            long vendor,
            String vendorName,
            long remitTo,
            String what,
            List<String> before,
            String beforeBank,
            List<String> after,
            String afterBank,
            String why,
            long proposedById,
            String proposedBy,
            java.time.Instant proposedAt,
            String state,
            @Nullable String decidedBy,
            java.time.@Nullable Instant decidedAt,
            @Nullable LocalDate decidedOn,
            String decidedWhy,
            boolean rebanked) {}

    private static final String TOLD = """
            SELECT c.id, c.vendor_id, v.name, c.remit_to_id, c.what, c.before_payee, c.before_address, c.before_bank_mask,
              c.after_payee, c.after_address, c.after_bank_mask, c.why, c.proposed_by, p.name, c.proposed_at, c.state,
              d.name, c.decided_at, c.decided_on, c.decided_why,
              c.after_bank_key <> '' AND c.after_bank_key <> c.before_bank_key
            FROM vendor_change c JOIN vendor v ON v.id = c.vendor_id JOIN person p ON p.id = c.proposed_by
            LEFT JOIN person d ON d.id = c.decided_by
            """;

    /** What waits for a second person, oldest first. */
    @Transactional(readOnly = true)
    public List<Told> waiting() {
        return jdbc.sql(TOLD + " WHERE c.state = 'PROPOSED' ORDER BY c.id LIMIT " + MOST_WAITING)
                .query((r, n) -> told(r))
                .list();
    }

    /** Everything that was ever proposed about a vendor, newest first. */
    @Transactional(readOnly = true)
    public List<Told> of(VendorId vendor) {
        return jdbc.sql(TOLD + " WHERE c.vendor_id = ? ORDER BY c.id DESC")
                .param(vendor.value())
                .query((r, n) -> told(r))
                .list();
    }

    private static Told told(java.sql.ResultSet r) throws java.sql.SQLException {
        Timestamp decided = r.getTimestamp(18);
        return new Told(
                r.getLong(1),
                r.getLong(2),
                r.getString(3),
                r.getLong(4),
                r.getString(5),
                lines(r.getString(6), r.getString(7)),
                r.getString(8),
                lines(r.getString(9), r.getString(10)),
                r.getString(11),
                r.getString(12),
                r.getLong(13),
                r.getString(14),
                r.getTimestamp(15).toInstant(),
                r.getString(16),
                r.getString(17),
                decided == null ? null : decided.toInstant(),
                r.getObject(19, LocalDate.class),
                r.getString(20),
                r.getBoolean(21));
    }

    private static List<String> lines(String payee, String address) {
        List<String> lines = new ArrayList<>();
        if (!payee.isEmpty()) {
            lines.add(payee);
            lines.addAll(List.of(address.split("\n")));
        }
        return lines;
    }

    private Place place(RemitTo remitTo, String postalCode, @Nullable BankDetails bank) {
        String canonical = bank == null ? "" : bank.canonical();
        return new Place(
                remitTo.payee(),
                String.join("\n", remitTo.lines()),
                postalCode,
                bank == null ? null : seal.seal(canonical),
                bank == null ? "" : seal.fingerprint(canonical),
                bank == null ? "" : bank.masked());
    }

    private Place lockPlace(VendorId vendor, long at) {
        return jdbc.sql("SELECT payee, address, postal_code, bank_details_sealed, bank_key, bank_mask FROM remit_to"
                        + " WHERE id = ? AND vendor_id = ? FOR UPDATE")
                .params(at, vendor.value())
                .query((r, n) -> new Place(
                        r.getString(1), r.getString(2), r.getString(3), r.getString(4), r.getString(5), r.getString(6)))
                .optional()
                .orElseThrow(() -> Refusal.invalidField(
                        "other-vendor", "remitTo", "This is no address of that vendor. Choose one of its own."));
    }

    private Change lock(long id) {
        return lock(List.of(id)).stream().findFirst().orElseThrow(VendorChanges::decidedAlready);
    }

    private static Refusal decidedAlready() {
        return Refusal.conflict(
                "decided-already", "This change does not wait any more: somebody decided on it. Look at the vendor.");
    }

    /** Locks what still waits, so that two people decide one after the other. */
    private List<Change> lock(Collection<Long> wanted) {
        return jdbc.sql("""
                        SELECT id, vendor_id, remit_to_id, what, proposed_by, before_payee, before_address, before_bank_mask,
                          after_payee, after_address, after_bank_mask, before_bank_key, after_bank_key
                        FROM vendor_change WHERE id IN (:ids) AND state = 'PROPOSED' ORDER BY id FOR UPDATE
                        """)
                .param("ids", wanted)
                .query((r, n) -> new Change(
                        r.getLong(1),
                        r.getLong(2),
                        r.getLong(3),
                        r.getString(4),
                        new PersonId(r.getLong(5)),
                        new Place(r.getString(6), r.getString(7), "", null, r.getString(12), r.getString(8)),
                        new Place(r.getString(9), r.getString(10), "", null, r.getString(13), r.getString(11))))
                .list();
    }

    private void decide(Actor by, List<Long> changes, String state, String why) {
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

    private void putInForce(List<Long> changes) {
        jdbc.sql("""
                        UPDATE remit_to t JOIN vendor_change c ON c.remit_to_id = t.id
                        SET t.payee = c.after_payee, t.address = c.after_address, t.postal_code = c.after_postal_code,
                          t.bank_details_sealed = c.after_bank_sealed, t.bank_key = c.after_bank_key,
                          t.bank_mask = c.after_bank_mask, t.in_force = TRUE
                        WHERE c.id IN (:ids)
                        """).param("ids", changes).update();
    }

    private static Object[] row(Actor by, long id, long vendor, long remitTo, Place before, Place after, String why) {
        return new Object[] {
            id,
            vendor,
            remitTo,
            after.what(before),
            before.payee,
            before.address,
            before.postalCode,
            before.sealed,
            before.bankKey,
            before.bankMask,
            after.payee,
            after.address,
            after.postalCode,
            after.sealed,
            after.bankKey,
            after.bankMask,
            why,
            by.person().value(),
            Timestamp.from(by.now()),
            by.today()
        };
    }

    private void insertPlaces(List<Object[]> rows) {
        many.batchUpdate(
                "INSERT INTO remit_to (id, vendor_id, payee, address, postal_code, bank_details_sealed, bank_key,"
                        + " bank_mask) VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
                rows);
    }

    private void insertChanges(List<Object[]> rows) {
        many.batchUpdate("""
                INSERT INTO vendor_change (id, vendor_id, remit_to_id, what, before_payee, before_address,
                  before_postal_code, before_bank_sealed, before_bank_key, before_bank_mask, after_payee, after_address,
                  after_postal_code, after_bank_sealed, after_bank_key, after_bank_mask, why, proposed_by, proposed_at,
                  proposed_on, state, decided_why, version)
                VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, 'PROPOSED', '', 0)
                """, rows);
    }

    private static String subject(long vendor) {
        return "vendor " + vendor;
    }

    private static Map<String, String> told(String what, Place before, Place after, String why) {
        Map<String, String> detail = new TreeMap<>();
        detail.put("what", what);
        detail.put("before", words(before));
        detail.put("after", words(after));
        if (!why.isBlank()) {
            detail.put("reason", why.strip());
        }
        return detail;
    }

    private static String words(Place place) {
        return place.payee.isEmpty()
                ? "none"
                : place.payee + ", " + place.address.replace("\n", ", ")
                        + (place.bankMask.isEmpty() ? "" : ", " + place.bankMask);
    }
}
