package leveltally.server.vendors;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Seal;
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
    private final Seal seal;

    Vendors(EntityManager entities, JdbcClient jdbc, AuditTrail audit, Seal seal) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.audit = audit;
        this.seal = seal;
    }

    /** A vendor to choose from a list. */
    @Schema(requiredProperties = {"id", "number", "name", "group"})
    public record Choice(long id, String number, String name, String group) {}

    /** Adds a vendor with its first remit-to. */
    @Transactional
    public VendorId add(Actor by, Vendor wanted, RemitTo remitTo, String postalCode, @Nullable String bankDetails) {
        by.mayDo(Deed.ENTER_VENDOR);
        VendorEntity vendor = entity(wanted);
        entities.persist(vendor);
        entities.flush();
        addRemitTo(new VendorId(vendor.id), remitTo, postalCode, bankDetails);
        audit.record(by, "add vendor", "vendor " + vendor.id, Map.of("name", vendor.name));
        return new VendorId(vendor.id);
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
        for (int i = 0; i < rows.size(); i++) {
            RemitToEntity address = new RemitToEntity();
            address.vendorId = rows.get(i).id;
            address.payee = arrivals.get(i).remitTo().payee();
            address.address = String.join("\n", arrivals.get(i).remitTo().lines());
            address.postalCode = arrivals.get(i).postalCode();
            entities.persist(address);
        }
        entities.flush();
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
                .sql("SELECT vendor_id, MIN(id) FROM remit_to WHERE vendor_id IN (:ids) GROUP BY vendor_id")
                .param("ids", ids.stream().map(VendorId::value).toList())
                .query((r, n) -> Map.entry(r.getLong(1), r.getLong(2)))
                .list()
                .stream()
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
    }

    /** Adds a further address; whoever calls this has had it confirmed. */
    @Transactional
    public long addRemitTo(VendorId vendor, RemitTo remitTo, String postalCode, @Nullable String bankDetails) {
        RemitToEntity address = new RemitToEntity();
        address.vendorId = vendor.value();
        address.payee = remitTo.payee();
        address.address = String.join("\n", remitTo.lines());
        address.postalCode = postalCode;
        address.bankDetailsSealed = bankDetails == null ? null : seal.seal(bankDetails);
        entities.persist(address);
        // inserts are grouped by table, so the rows of two vendors must not wait for each other
        entities.flush();
        return address.id;
    }

    @Transactional
    public void hold(Actor by, VendorId id, String reason) {
        by.mayDo(Deed.HOLD);
        VendorEntity vendor = row(id);
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why payments to this vendor are held.");
        }
        vendor.holdReason = reason.strip();
        audit.record(by, "hold vendor", "vendor " + vendor.id, Map.of("reason", reason.strip()));
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

    @Transactional(readOnly = true)
    public Vendor get(VendorId id) {
        return view(row(id));
    }

    /** Remit-to addresses by id, with what orders claims; one statement, whatever their number. */
    @Transactional(readOnly = true)
    public Map<Long, Place> places(Collection<Long> ids) {
        if (ids.isEmpty()) {
            return Map.of();
        }
        String listed = ids.stream().distinct().map(String::valueOf).collect(Collectors.joining(",", "[", "]"));
        return jdbc.sql("""
                        SELECT r.id, r.vendor_id, v.number, r.payee, r.address, r.postal_code
                        FROM remit_to r JOIN vendor v ON v.id = r.vendor_id
                        WHERE r.id IN (SELECT n FROM JSON_TABLE(:ids, '$[*]' COLUMNS (n BIGINT PATH '$')) x)
                        """).param("ids", listed).query((r, n) -> place(r)).list().stream()
                .collect(Collectors.toMap(Place::id, place -> place));
    }

    /** All addresses of a vendor, the usual one first. */
    @Transactional(readOnly = true)
    public List<Place> placesOf(VendorId id) {
        return jdbc.sql("""
                        SELECT r.id, r.vendor_id, v.number, r.payee, r.address, r.postal_code
                        FROM remit_to r JOIN vendor v ON v.id = r.vendor_id WHERE r.vendor_id = :vendor ORDER BY r.id
                        """)
                .param("vendor", id.value())
                .query((r, n) -> place(r))
                .list();
    }

    private static Place place(java.sql.ResultSet r) throws java.sql.SQLException {
        return new Place(
                r.getLong(1),
                r.getLong(2),
                r.getString(3),
                new RemitTo(r.getString(4), List.of(r.getString(5).split("\n"))),
                r.getString(6));
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

    /** The remit-to a new invoice of this vendor gets. */
    @Transactional(readOnly = true)
    public long usualRemitTo(VendorId id) {
        return entities.createQuery("select min(r.id) from RemitToEntity r where r.vendorId = :vendor", Long.class)
                .setParameter("vendor", id.value())
                .getSingleResult();
    }

    /** Vendors whose name or number holds the text, at most fifty, by name. */
    @Transactional(readOnly = true)
    public List<Choice> named(String text) {
        String like = "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%";
        return jdbc.sql("SELECT id, number, name, vendor_group FROM vendor WHERE name LIKE :like OR number LIKE :like"
                        + " ORDER BY name LIMIT 50")
                .param("like", like)
                .query((r, n) -> new Choice(r.getLong(1), r.getString(2), r.getString(3), r.getString(4)))
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
        vendor.termsRule = wanted.terms().rule();
        vendor.termsDays = wanted.terms().days();
        vendor.termsCutOffDay = wanted.terms().cutOffDay();
        vendor.discountRate = wanted.terms().discountRate().setScale(5);
        vendor.discountDays = wanted.terms().discountDays();
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
                new Terms(v.termsRule, v.termsDays, v.termsCutOffDay, v.discountRate, v.discountDays),
                v.holdReason);
    }
}
