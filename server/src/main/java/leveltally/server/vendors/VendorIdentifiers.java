package leveltally.server.vendors;

import java.sql.Timestamp;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.SenderIdentifier;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What vendors call themselves in the documents they send; each identifier is one vendor's. */
@Service
public class VendorIdentifiers {
    private final JdbcClient jdbc;
    private final Vendors vendors;
    private final AuditTrail audit;

    VendorIdentifiers(JdbcClient jdbc, Vendors vendors, AuditTrail audit) {
        this.jdbc = jdbc;
        this.vendors = vendors;
        this.audit = audit;
    }

    /** The number of the vendor that is known by it. */
    @Transactional(readOnly = true)
    public Optional<String> vendor(SenderIdentifier one) {
        return jdbc.sql("""
                        SELECT v.number FROM vendor_identifier i JOIN vendor v ON v.id = i.vendor_id
                        WHERE i.scheme = :scheme AND i.value = :value
                        """)
                .param("scheme", one.scheme())
                .param("value", one.value())
                .query(String.class)
                .optional();
    }

    @Transactional(readOnly = true)
    List<SenderIdentifier> of(VendorId vendor) {
        return jdbc.sql("SELECT scheme, value FROM vendor_identifier WHERE vendor_id = :vendor ORDER BY scheme, value")
                .param("vendor", vendor.value())
                .query(SenderIdentifier.class)
                .list();
    }

    /** Keeps one for a vendor; what is another's already stays that one's. */
    public void keep(Actor by, SenderIdentifier one, VendorId vendor) {
        jdbc.sql("""
                        INSERT IGNORE INTO vendor_identifier (scheme, value, vendor_id, kept_by, kept_at)
                        VALUES (:scheme, :value, :vendor, :by, :at)
                        """)
                .param("scheme", one.scheme())
                .param("value", one.value())
                .param("vendor", vendor.value())
                .param("by", by.person().value())
                .param("at", Timestamp.from(by.now()))
                .update();
    }

    /** Somebody says by hand what a vendor calls itself. */
    @Transactional
    void add(Actor by, VendorId vendor, SenderIdentifier one) {
        by.mayDo(Deed.CHANGE_VENDOR);
        Vendor of = vendors.get(vendor);
        keep(by, one, vendor);
        String known = vendor(one).orElseThrow();
        if (!known.equals(of.number())) {
            throw Refusal.invalidField(
                    "identifier-of-another",
                    "value",
                    "Documents with this come from vendor " + known + ". Take it from that one first, or check it.");
        }
        audit.record(by, "keep sender", "vendor " + vendor.value(), Map.of("by", one.scheme(), "value", one.value()));
    }

    @Transactional
    void forget(Actor by, VendorId vendor, SenderIdentifier one) {
        by.mayDo(Deed.CHANGE_VENDOR);
        int gone = jdbc.sql("""
                        DELETE FROM vendor_identifier WHERE scheme = :scheme AND value = :value AND vendor_id = :vendor
                        """)
                .param("scheme", one.scheme())
                .param("value", one.value())
                .param("vendor", vendor.value())
                .update();
        if (gone == 0) {
            throw Refusal.conflict("no-identifier", "This is not kept for the vendor any more. Look again.");
        }
        audit.record(by, "forget sender", "vendor " + vendor.value(), Map.of("by", one.scheme(), "value", one.value()));
    }
}
