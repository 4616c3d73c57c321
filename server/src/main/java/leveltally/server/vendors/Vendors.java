package leveltally.server.vendors;

import jakarta.persistence.EntityManager;
import java.sql.ResultSet;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Currency;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.KnownBank;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorFacts;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The vendors. */
@Service
public class Vendors {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final AuditTrail audit;
    private final VendorChanges changes;

    Vendors(EntityManager entities, JdbcClient jdbc, AuditTrail audit, VendorChanges changes) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.audit = audit;
        this.changes = changes;
    }

    /** A vendor to choose from a list. */
    public record Choice(long id, String number, String name, String group) {}

    /** Adds a vendor; its first remit-to waits for a second person. */
    @Transactional
    public VendorId add(Actor by, Vendor wanted, RemitTo remitTo, String postalCode, @Nullable BankDetails bank) {
        by.mayDo(Deed.ENTER_VENDOR);
        VendorEntity vendor = entity(wanted);
        entities.persist(vendor);
        entities.flush();
        VendorId id = new VendorId(vendor.id);
        changes.propose(by, List.of(new VendorChanges.First(id, remitTo, postalCode, bank)), "new vendor");
        audit.record(by, "add vendor", "vendor " + vendor.id, Map.of("name", vendor.name));
        return id;
    }

    /** One vendor of many. */
    public record Arrival(Vendor vendor, RemitTo remitTo, String postalCode) {}

    /** Adds many at once; one record tells of them all. */
    @Transactional
    public void addAll(Actor by, List<Arrival> arrivals, String from) {
        by.mayDo(Deed.ENTER_VENDOR);
        List<VendorEntity> rows = arrivals.stream()
                .map(arrival -> {
                    VendorEntity row = entity(arrival.vendor());
                    entities.persist(row);
                    return row;
                })
                .toList();
        entities.flush();
        List<VendorChanges.First> firsts = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            Arrival arrival = arrivals.get(i);
            firsts.add(new VendorChanges.First(
                    new VendorId(rows.get(i).id), arrival.remitTo(), arrival.postalCode(), null));
        }
        changes.propose(by, firsts, "brought in with " + from);
        entities.clear();
        if (!rows.isEmpty()) {
            audit.record(by, "bring in vendors", from, Map.of("count", rows.size()));
        }
    }

    /** The remit-to a new invoice of each vendor gets. */
    @Transactional(readOnly = true)
    public Map<Long, Long> usualRemitTos(Collection<VendorId> ids) {
        if (ids.isEmpty()) {
            return Map.of();
        }
        return jdbc
                .sql("SELECT vendor_id, COALESCE(MIN(CASE WHEN in_force THEN id END), MIN(id)) AS usual FROM remit_to"
                        + " WHERE vendor_id IN (:ids) GROUP BY vendor_id")
                .param("ids", ids.stream().map(VendorId::value).toList())
                .query((r, n) -> Map.entry(r.getLong("vendor_id"), r.getLong("usual")))
                .list()
                .stream()
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
    }

    @Transactional
    public void hold(Actor by, VendorId id, String reason) {
        by.mayDo(Deed.HOLD);
        VendorEntity vendor = row(id);
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why payments to this vendor are held.");
        }
        String before = vendor.holdReason;
        vendor.holdReason = reason.strip();
        audit.record(
                by,
                "hold vendor",
                "vendor " + vendor.id,
                Map.of("before", before == null ? "" : before, "after", reason.strip()));
    }

    /** Ends a hold; only a controller does. */
    @Transactional
    public void release(Actor by, VendorId id, String reason) {
        by.mayDo(Deed.RELEASE_VENDOR);
        VendorEntity vendor = row(id);
        String before = vendor.holdReason;
        if (before == null) {
            throw Refusal.conflict("not-held", vendor.name + " is not held. Look at the page again.");
        }
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why payments may go on.");
        }
        vendor.holdReason = null;
        audit.record(by, "release vendor", "vendor " + vendor.id, Map.of("before", before, "reason", reason.strip()));
    }

    /** By what a vendor may be paid: the way it prefers, and those it allows. */
    @Transactional(readOnly = true)
    public Set<PaymentMethod> paidBy(VendorId id) {
        VendorFacts facts = row(id).facts();
        Set<PaymentMethod> ways = EnumSet.of(facts.method());
        ways.addAll(facts.alsoBy());
        return ways;
    }

    @Transactional(readOnly = true)
    public Vendor get(VendorId id) {
        return view(row(id));
    }

    /**
     * The vendor whose documents can be entered.
     *
     * @throws Refusal when it became another
     */
    @Transactional(readOnly = true)
    public Vendor taking(VendorId id) {
        VendorEntity vendor = row(id);
        if (vendor.mergedIntoId != null) {
            VendorEntity became = row(new VendorId(vendor.mergedIntoId));
            throw Refusal.invalidField(
                    "vendor-merged",
                    "vendor",
                    vendor.name + " became " + became.name + " (" + became.number + "). Enter it for that one.");
        }
        return view(vendor);
    }

    /** Remit-to addresses by id, with what orders claims; one statement, whatever their number. */
    @Transactional(readOnly = true)
    public Map<Long, Place> places(Collection<Long> ids) {
        if (ids.isEmpty()) {
            return Map.of();
        }
        String listed = ids.stream().distinct().map(String::valueOf).collect(Collectors.joining(",", "[", "]"));
        return jdbc.sql("""
                        SELECT r.id, r.vendor_id, v.number, r.payee, r.address, r.postal_code, r.bank_key, r.in_force,
                          r.bank_details_sealed, r.bank_mask, r.bank_kind, v.one_time
                        FROM remit_to r JOIN vendor v ON v.id = r.vendor_id
                        WHERE r.id IN (SELECT n FROM JSON_TABLE(:ids, '$[*]' COLUMNS (n BIGINT PATH '$')) x)
                        """).param("ids", listed).query((r, n) -> place(r)).list().stream()
                .collect(Collectors.toMap(Place::id, place -> place));
    }

    /** All addresses of a vendor, the usual one first. */
    @Transactional(readOnly = true)
    public List<Place> placesOf(VendorId id) {
        return placesOf(List.of(id)).getOrDefault(id.value(), List.of());
    }

    /** All addresses of these vendors, by vendor, the usual one first. */
    @Transactional(readOnly = true)
    public Map<Long, List<Place>> placesOf(Collection<VendorId> ids) {
        if (ids.isEmpty()) {
            return Map.of();
        }
        return jdbc
                .sql("""
                        SELECT r.id, r.vendor_id, v.number, r.payee, r.address, r.postal_code, r.bank_key, r.in_force,
                          r.bank_details_sealed, r.bank_mask, r.bank_kind, v.one_time
                        FROM remit_to r JOIN vendor v ON v.id = r.vendor_id WHERE r.vendor_id IN (:ids) ORDER BY r.id
                        """)
                .param("ids", ids.stream().map(VendorId::value).toList())
                .query((r, n) -> place(r))
                .list()
                .stream()
                .collect(Collectors.groupingBy(Place::vendor));
    }

    private static Place place(java.sql.ResultSet r) throws java.sql.SQLException {
        return new Place(
                r.getLong("id"),
                r.getLong("vendor_id"),
                r.getString("number"),
                new RemitTo(r.getString("payee"), List.of(r.getString("address").split("\n")), r.getString("bank_key")),
                r.getString("postal_code"),
                r.getBoolean("in_force"),
                r.getString("bank_details_sealed"),
                r.getString("bank_mask"),
                KnownBank.kind(r.getString("bank_kind")),
                r.getBoolean("one_time"));
    }

    /** Ids of vendors by their numbers; those unknown are missing. */
    @Transactional(readOnly = true)
    public Map<String, Vendor> byNumber(Collection<String> numbers) {
        if (numbers.isEmpty()) {
            return Map.of();
        }
        return entities.createQuery("select v from VendorEntity v where v.number in :numbers", VendorEntity.class)
                .setParameter("numbers", numbers)
                .getResultStream()
                .collect(Collectors.toMap(v -> v.number, Vendors::view));
    }

    /**
     * A vendor with the currency it is paid in.
     *
     * @param held why it is held; null where it is not
     * @param rather by which it is paid as a rule, and {@code alsoBy} by which else it may be
     */
    public record Called(
            VendorId id,
            String name,
            String currency,
            @Nullable String held,
            PaymentMethod rather,
            Set<PaymentMethod> alsoBy) {
        /** Whether this is one of its ways. */
        public boolean isPaidBy(PaymentMethod method) {
            return method == rather || alsoBy.contains(method);
        }
    }

    /** Vendors by their numbers or whole names, in lower case; what is merged into another, and what two are called, is missing. */
    @Transactional(readOnly = true)
    public Map<String, Called> called(Collection<String> texts) {
        Map<String, Called> found = new HashMap<>();
        Set<String> twice = new HashSet<>();
        if (texts.isEmpty()) {
            return found;
        }
        jdbc.sql(
                        "SELECT id, number, name, currency, hold_reason, method, also_by FROM vendor WHERE merged_into_id IS NULL"
                                + " AND (number IN (:texts) OR name IN (:texts)) ORDER BY id")
                .param("texts", texts)
                .query((ResultSet r) -> {
                    Called one = new Called(
                            new VendorId(r.getLong("id")),
                            r.getString("name"),
                            r.getString("currency"),
                            r.getString("hold_reason"),
                            PaymentMethod.valueOf(r.getString("method")),
                            PaymentMethod.named(r.getString("also_by")));
                    found.put(r.getString("number").toLowerCase(Locale.ROOT), one);
                    String name = one.name().toLowerCase(Locale.ROOT);
                    if (found.put(name, one) != null) {
                        twice.add(name);
                    }
                });
        twice.forEach(found::remove);
        return found;
    }

    /** The remit-to a new invoice of this vendor gets. */
    @Transactional(readOnly = true)
    public long usualRemitTo(VendorId id) {
        return usualRemitTos(List.of(id)).get(id.value());
    }

    /** Vendors whose name or number holds the text, at most fifty, by name. */
    @Transactional(readOnly = true)
    public List<Choice> named(String text) {
        String like = "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
        return jdbc.sql(
                        "SELECT id, number, name, vendor_group FROM vendor WHERE (name LIKE :like OR number LIKE :like) AND merged_into_id IS NULL"
                                + " ORDER BY name LIMIT 50")
                .param("like", like)
                .query((r, n) -> new Choice(
                        r.getLong("id"), r.getString("number"), r.getString("name"), r.getString("vendor_group")))
                .list();
    }

    @Transactional(readOnly = true)
    public List<String> groups() {
        return jdbc.sql("SELECT DISTINCT vendor_group FROM vendor ORDER BY vendor_group")
                .query(String.class)
                .list();
    }

    private static VendorEntity entity(Vendor wanted) {
        VendorEntity vendor = new VendorEntity();
        vendor.number = wanted.number();
        vendor.name = wanted.name();
        vendor.vendorGroup = wanted.group();
        vendor.priority = wanted.priority();
        vendor.method = wanted.method();
        vendor.currency = wanted.currency().getCurrencyCode();
        vendor.take(wanted.terms());
        vendor.oneTime = wanted.oneTime();
        return vendor;
    }

    private VendorEntity row(VendorId id) {
        VendorEntity vendor = entities.find(VendorEntity.class, id.value());
        if (vendor == null) {
            throw Refusal.notFound("no-vendor", "There is no such vendor. Choose one from the list.");
        }
        return vendor;
    }

    private static Vendor view(VendorEntity v) {
        return new Vendor(
                new VendorId(v.id),
                v.number,
                v.name,
                v.vendorGroup,
                v.priority,
                v.method,
                Currency.getInstance(v.currency),
                v.terms(),
                v.holdReason,
                v.oneTime);
    }
}
