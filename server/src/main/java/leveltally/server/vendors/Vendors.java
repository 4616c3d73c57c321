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
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The vendors. */
@Service
public class Vendors {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final AuditTrail audit;

    Vendors(EntityManager entities, JdbcClient jdbc, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.audit = audit;
    }

    /** A vendor to choose from a list. */
    @Schema(requiredProperties = {"id", "number", "name", "group"})
    public record Choice(long id, String number, String name, String group) {}

    /** Adds a vendor with its first remit-to. */
    @Transactional
    public VendorId add(Actor by, Vendor wanted, RemitTo remitTo) {
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
        entities.persist(vendor);
        RemitToEntity address = new RemitToEntity();
        address.vendorId = vendor.id;
        address.payee = remitTo.payee();
        address.address = String.join("\n", remitTo.lines());
        entities.persist(address);
        audit.record(by, "add vendor", "vendor " + vendor.id, Map.of("name", vendor.name));
        return new VendorId(vendor.id);
    }

    @Transactional
    public void hold(Actor by, VendorId id, String reason) {
        by.mayDo(Deed.HOLD);
        VendorEntity vendor = row(id);
        if (reason.isBlank()) {
            throw Refusal.invalidField("reason-missing", "reason", "Say why payments to this vendor are held.");
        }
        vendor.holdReason = reason;
        audit.record(by, "hold vendor", "vendor " + vendor.id, Map.of("reason", reason));
    }

    @Transactional(readOnly = true)
    public Vendor get(VendorId id) {
        return view(row(id));
    }

    /** The remit-to addresses, by id. */
    @Transactional(readOnly = true)
    public Map<Long, RemitTo> remitTos(Collection<Long> ids) {
        if (ids.isEmpty()) {
            return Map.of();
        }
        return entities.createQuery("select r from RemitToEntity r where r.id in :ids", RemitToEntity.class)
                .setParameter("ids", ids)
                .getResultStream()
                .collect(Collectors.toMap(r -> r.id, r -> new RemitTo(r.payee, List.of(r.address.split("\n")))));
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
