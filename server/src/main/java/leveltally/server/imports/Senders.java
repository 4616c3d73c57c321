package leveltally.server.imports;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.SenderIdentifier;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Seal;
import leveltally.server.vendors.VendorIdentifiers;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Which vendor sends a document, by any of the identifiers that were kept for one. */
@Component
class Senders {
    private final JdbcClient jdbc;
    private final VendorIdentifiers identifiers;
    private final Seal seal;
    private final AuditTrail audit;

    Senders(JdbcClient jdbc, VendorIdentifiers identifiers, Seal seal, AuditTrail audit) {
        this.jdbc = jdbc;
        this.identifiers = identifiers;
        this.seal = seal;
        this.audit = audit;
    }

    /** The vendor's number; empty when nobody is known by any of them, or two by one name. */
    @Transactional(readOnly = true)
    Optional<String> vendor(UblParty party) {
        return party.identifiers().stream()
                .map(this::vendor)
                .flatMap(Optional::stream)
                .findFirst();
    }

    private Optional<String> vendor(SenderIdentifier one) {
        Optional<String> found = identifiers.vendor(new SenderIdentifier(one.scheme(), kept(one)));
        if (found.isPresent()) {
            return found;
        }
        String sql = switch (one.scheme().split(" ")[0]) {
            case UblParty.NUMBER, UblParty.IDENTIFICATION ->
                "SELECT number FROM vendor WHERE number = :value AND merged_into_id IS NULL";
            case UblParty.NAME -> "SELECT number FROM vendor WHERE name = :value AND merged_into_id IS NULL LIMIT 2";
            case UblParty.ACCOUNT ->
                "SELECT DISTINCT v.number FROM remit_to t JOIN vendor v ON v.id = t.vendor_id"
                        + " WHERE t.account_key = :value AND t.account_key <> '' LIMIT 2";
            default -> "";
        };
        if (sql.isEmpty()) {
            return Optional.empty();
        }
        List<String> own =
                jdbc.sql(sql).param("value", kept(one)).query(String.class).list();
        return own.size() == 1 ? Optional.of(own.get(0)) : Optional.empty();
    }

    /** Keeps for a vendor what a sender calls itself; a name alone is kept only where nothing better is there. */
    @Transactional
    void keep(Actor by, UblParty party, long vendor) {
        boolean better =
                party.identifiers().stream().anyMatch(one -> !one.scheme().equals(UblParty.NAME));
        for (SenderIdentifier one : party.identifiers()) {
            if (better && one.scheme().equals(UblParty.NAME)) {
                continue;
            }
            identifiers.keep(by, new SenderIdentifier(one.scheme(), kept(one)), new VendorId(vendor));
        }
        if (party.identifiers().isEmpty()) {
            throw Refusal.conflict(
                    "no-identifier",
                    "This document says nothing by which its sender could be known again. Enter it by hand.");
        }
        audit.record(
                by,
                "keep sender",
                "vendor " + vendor,
                Map.of(
                        "name",
                        party.name(),
                        "by",
                        party.identifiers().stream()
                                .map(SenderIdentifier::scheme)
                                .toList()));
    }

    /** A bank account is kept as its keyed hash only. */
    private String kept(SenderIdentifier one) {
        if (!one.scheme().equals(UblParty.ACCOUNT)) {
            return one.value();
        }
        try {
            return seal.fingerprint(BankDetails.typed("", one.value()).canonical());
        } catch (Refusal noIban) {
            return seal.fingerprint(one.value().replaceAll("[\\s-]", ""));
        }
    }
}
