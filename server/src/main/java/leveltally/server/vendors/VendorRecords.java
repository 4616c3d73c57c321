package leveltally.server.vendors;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.Currency;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.BankDetails;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.RemitTo;
import leveltally.core.vendors.TaxNumber;
import leveltally.core.vendors.VendorFacts;
import leveltally.core.vendors.VendorId;
import leveltally.server.audit.AuditTrail;
import leveltally.server.frame.Seal;
import org.hibernate.exception.ConstraintViolationException;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Vendors entered and changed by hand. */
@Service
public class VendorRecords {
    private final EntityManager entities;
    private final JdbcClient jdbc;
    private final VendorChanges changes;
    private final Seal seal;
    private final AuditTrail audit;

    VendorRecords(EntityManager entities, JdbcClient jdbc, VendorChanges changes, Seal seal, AuditTrail audit) {
        this.entities = entities;
        this.jdbc = jdbc;
        this.changes = changes;
        this.seal = seal;
        this.audit = audit;
    }

    /**
     * A vendor as it is entered.
     *
     * @param number empty for the next one
     * @param taxNumber null where none is known, as is {@code bank}
     */
    public record New(
            String number,
            VendorFacts facts,
            Currency currency,
            boolean oneTime,
            @Nullable TaxNumber taxNumber,
            RemitTo remitTo,
            String postalCode,
            @Nullable BankDetails bank) {}

    /** Enters a vendor; its address and bank details wait for a second person. */
    @Transactional
    public VendorId enter(Actor by, New wanted) {
        by.mayDo(Deed.ENTER_VENDOR);
        mustBePaid(wanted.currency());
        VendorEntity row = new VendorEntity();
        row.number = wanted.number().isBlank() ? nextNumber() : VendorFacts.number(wanted.number());
        row.currency = wanted.currency().getCurrencyCode();
        row.oneTime = wanted.oneTime();
        row.take(wanted.facts());
        keep(row, wanted.taxNumber());
        mustBeAnotherName(row, null);
        try {
            entities.persist(row);
            entities.flush();
        } catch (ConstraintViolationException known) {
            throw Refusal.invalidField(
                    "vendor-known",
                    "number",
                    "There is a vendor " + row.number + " already. Choose another number, or leave it empty.");
        }
        VendorId id = new VendorId(row.id);
        changes.proposeFirst(by, id, wanted.remitTo(), wanted.postalCode(), wanted.bank());
        audit.record(by, "add vendor", subject(row.id), new TreeMap<>(words(row)));
        return id;
    }

    private void mustBePaid(Currency currency) {
        List<String> paid = jdbc.sql(
                        "SELECT DISTINCT currency FROM bank_account WHERE closed_on IS NULL ORDER BY currency")
                .query(String.class)
                .list();
        if (!paid.contains(currency.getCurrencyCode())) {
            throw Refusal.invalidField(
                    "currency-unpaid",
                    "currency",
                    paid.isEmpty()
                            ? "There is no bank account yet, so nobody can be paid. An administrator opens one first."
                            : "None of our bank accounts pays in " + currency.getCurrencyCode() + ". Choose "
                                    + String.join(" or ", paid) + ".");
        }
    }

    /** A second vendor of the same name is most often the same vendor. */
    private void mustBeAnotherName(VendorEntity row, @Nullable Long but) {
        jdbc.sql("SELECT number FROM vendor WHERE name = :name AND id <> :but LIMIT 1")
                .param("name", row.name)
                .param("but", but == null ? 0 : but)
                .query(String.class)
                .optional()
                .ifPresent(number -> {
                    throw Refusal.invalidField(
                            "vendor-name-known",
                            "name",
                            "Vendor " + number
                                    + " is called so already. Look at that one; if this is another, tell them"
                                    + " apart in the name, such as by the town.");
                });
    }

    /** The number a vendor gets where none is typed. */
    @Transactional(readOnly = true)
    public String nextNumber() {
        return "V"
                + jdbc.sql("SELECT COALESCE(MAX(CAST(SUBSTRING(number, 2) AS UNSIGNED)), 1000) + 1 FROM vendor"
                                + " WHERE number REGEXP '^V[0-9]{1,11}$'")
                        .query(Long.class)
                        .single();
    }

    /** What is kept of a vendor, with the version whoever changes it must have seen. */
    public record Kept(VendorFacts facts, String taxNumber, long version) {}

    /** @return the tax number as its end only */
    @Transactional(readOnly = true)
    public Kept kept(VendorId id) {
        VendorEntity row = row(id, null);
        return new Kept(row.facts(), row.taxNumberMask, row.version);
    }

    /**
     * Changes what is kept; documents that are in keep the terms they came with.
     *
     * @param taxNumber as it was typed: null leaves it as it is, empty takes it away
     * @param version the one that was seen
     */
    @Transactional
    public void change(Actor by, VendorId id, VendorFacts wanted, @Nullable String taxNumber, long version) {
        by.mayDo(Deed.CHANGE_VENDOR);
        VendorEntity row = row(id, LockModeType.PESSIMISTIC_WRITE);
        if (row.version != version) {
            throw Refusal.conflict(
                    "changed-meanwhile",
                    "Somebody changed this vendor meanwhile. Nothing of yours was saved; look at it as it is now.");
        }
        Map<String, String> before = words(row);
        boolean renamed = !row.name.equals(wanted.name());
        row.take(wanted);
        if (renamed) {
            mustBeAnotherName(row, row.id);
        }
        if (taxNumber != null) {
            keep(row, taxNumber.isBlank() ? null : new TaxNumber(taxNumber));
        }
        Map<String, String> told = new TreeMap<>();
        words(row).forEach((field, now) -> {
            if (!now.equals(before.get(field))) {
                told.put(field, before.get(field) + " → " + now);
            }
        });
        if (!told.isEmpty()) {
            audit.record(by, "change vendor", subject(row.id), told);
        }
    }

    private void keep(VendorEntity row, @Nullable TaxNumber number) {
        row.taxNumberSealed = number == null ? null : seal.seal(number.plain());
        row.taxNumberMask = number == null ? "" : number.masked();
    }

    private VendorEntity row(VendorId id, @Nullable LockModeType lock) {
        VendorEntity row = lock == null
                ? entities.find(VendorEntity.class, id.value())
                : entities.find(VendorEntity.class, id.value(), lock);
        if (row == null) {
            throw Refusal.notFound("no-vendor", "There is no such vendor. Choose one from the list.");
        }
        return row;
    }

    private static Map<String, String> words(VendorEntity row) {
        Map<String, String> words = new TreeMap<>();
        VendorFacts facts = row.facts();
        words.put("name", facts.name());
        words.put("group", facts.group());
        words.put("priority", String.valueOf(facts.priority()));
        words.put("paid by", facts.method().words());
        words.put(
                "may be paid by",
                facts.alsoBy().stream().sorted().map(PaymentMethod::words).collect(Collectors.joining(", ")));
        words.put("terms", facts.terms().inWords());
        Paperwork papers = facts.paperwork();
        words.put("mail", papers.email());
        words.put("advice", papers.advice().words());
        words.put("checks go", papers.checks().words());
        words.put(
                "dates",
                papers.dates() == null
                        ? "as the layout has them"
                        : papers.dates().words());
        words.put("tax number", row.taxNumberMask);
        words.put("reported", facts.reportable().words());
        return words;
    }

    private static String subject(long id) {
        return "vendor " + id;
    }
}
