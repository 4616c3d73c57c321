package leveltally.server.company;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.time.ZoneId;
import java.time.format.TextStyle;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.company.Company;
import leveltally.core.company.FiscalYear;
import leveltally.core.paper.Picture;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.server.audit.AuditTrail;
import leveltally.server.pictures.Pictures;
import org.hibernate.exception.ConstraintViolationException;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The one company, and its policies. */
@Service
public class Companies {
    /** The version of a company that is not set up. */
    public static final long NOT_YET = -1;

    private static final String SUBJECT = "company " + CompanyEntity.ONLY;

    private final EntityManager entities;
    private final AuditTrail audit;
    private final Pictures pictures;

    Companies(EntityManager entities, AuditTrail audit, Pictures pictures) {
        this.pictures = pictures;
        this.entities = entities;
        this.audit = audit;
    }

    /** The company with the version whoever changes it must have seen; {@code company} is null before it is set up. */
    public record Seen(@Nullable Company company, long version) {}

    /** @throws Refusal while none is set up */
    @Transactional(readOnly = true)
    public Company company() {
        Company company = seen().company();
        if (company == null) {
            throw Refusal.conflict("no-company", "No company is set up yet. An administrator does that first.");
        }
        return company;
    }

    /** How long a check may be outstanding; what is usual while no company is set up. */
    @Transactional(readOnly = true)
    public int staleDays() {
        Company company = seen().company();
        return company == null ? Company.USUAL_STALE_DAYS : company.staleDays();
    }

    /** How its months are counted; by the calendar while no company is set up. */
    @Transactional(readOnly = true)
    public FiscalYear year() {
        Company company = seen().company();
        return company == null ? FiscalYear.OF_THE_CALENDAR : company.year();
    }

    /** Its logo; null for none. */
    @Transactional(readOnly = true)
    public @Nullable Picture logo() {
        CompanyEntity row = entities.find(CompanyEntity.class, CompanyEntity.ONLY);
        return row == null || row.logoId == null ? null : pictures.get(row.logoId);
    }

    /**
     * Gives the company a logo, or none; what was printed with another one keeps it.
     *
     * @param base64 the picture; empty for none
     */
    @Transactional
    public void setLogo(Actor by, String base64) {
        by.mayDo(Deed.SET_COMPANY);
        CompanyEntity row = entities.find(CompanyEntity.class, CompanyEntity.ONLY, LockModeType.PESSIMISTIC_WRITE);
        if (row == null) {
            throw Refusal.conflict("no-company", "No company is set up yet. Name it first, then give it a logo.");
        }
        row.logoId = base64.isEmpty()
                ? null
                : (Long) pictures.keep(by, base64, false).id();
        audit.record(by, "set logo", SUBJECT, Map.of("picture", row.logoId == null ? "none" : row.logoId));
    }

    @Transactional(readOnly = true)
    public Seen seen() {
        CompanyEntity row = entities.find(CompanyEntity.class, CompanyEntity.ONLY);
        return row == null ? new Seen(null, NOT_YET) : new Seen(view(row), row.version);
    }

    /**
     * Sets up the company, or changes it. What is printed, approved or posted stays as it was; what is reckoned from now on
     * goes by the new policies.
     *
     * @param version the one that was seen; {@link #NOT_YET} for the first time
     */
    @Transactional
    public void set(Actor by, Company wanted, long version) {
        by.mayDo(Deed.SET_COMPANY);
        CompanyEntity row = entities.find(CompanyEntity.class, CompanyEntity.ONLY, LockModeType.PESSIMISTIC_WRITE);
        if (row != null && row.version != version || row == null && version != NOT_YET) {
            throw changedMeanwhile();
        }
        Map<String, Object> told = new LinkedHashMap<>();
        if (row == null) {
            row = new CompanyEntity();
            fill(row, wanted);
            try {
                entities.persist(row);
                entities.flush();
            } catch (ConstraintViolationException setUpByAnother) {
                // there is only one: its key held against two who set it up at the same moment
                throw changedMeanwhile();
            }
            told.put("name", wanted.name());
        } else {
            Company before = view(row);
            if (before.equals(wanted)) {
                return;
            }
            told.put("before", words(before));
            told.put("after", words(wanted));
            fill(row, wanted);
        }
        audit.record(by, told.containsKey("before") ? "change company" : "set up company", SUBJECT, told);
    }

    private static Refusal changedMeanwhile() {
        return Refusal.conflict(
                "changed-meanwhile",
                "Somebody changed the company meanwhile. Nothing of yours was saved; look at it as it is now, then "
                        + "change what you still want.");
    }

    private static void fill(CompanyEntity row, Company wanted) {
        row.name = wanted.name();
        row.address = String.join("\n", wanted.address());
        row.graceDays = wanted.graceDays();
        row.staleDays = wanted.staleDays();
        row.zone = wanted.zone() == null ? null : wanted.zone().getId();
        row.firstMonth = wanted.year().first().getValue();
        row.oneTimeByTwo = wanted.oneTimeByTwo();
    }

    private static String words(Company company) {
        return company.name() + ", " + String.join(", ", company.address()) + ", grace days " + company.graceDays()
                + ", stale after " + company.staleDays() + " days, zone "
                + (company.zone() == null ? "of the machine" : company.zone().getId()) + ", year from "
                + company.year().first().getDisplayName(TextStyle.FULL, Locale.ENGLISH)
                + ", payees paid once by " + (company.oneTimeByTwo() ? "two" : "one");
    }

    private static Company view(CompanyEntity row) {
        return new Company(
                row.name,
                List.of(row.address.split("\n")),
                row.graceDays,
                row.staleDays,
                row.zone == null ? null : ZoneId.of(row.zone),
                FiscalYear.beginning(row.firstMonth),
                row.oneTimeByTwo);
    }
}
