package leveltally.server.vendors;

import jakarta.persistence.*;
import java.math.BigDecimal;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reportable;
import leveltally.core.vendors.VendorFacts;
import org.hibernate.annotations.DynamicUpdate;
import org.jspecify.annotations.Nullable;

/** Whom the company owes. */
@Entity
@DynamicUpdate
@Table(name = "vendor")
class VendorEntity {
    @Id
    @GeneratedValue(generator = "row_seq")
    @SequenceGenerator(name = "row_seq", sequenceName = "row_seq", allocationSize = 100)
    Long id;

    String number;
    String name;
    String vendorGroup;
    int priority;

    @Enumerated(EnumType.STRING)
    PaymentMethod method;

    String currency;

    @Enumerated(EnumType.STRING)
    Terms.Rule termsRule;

    int termsDays;

    @Nullable
    Integer termsCutOffDay;

    @Column(precision = 7, scale = 5)
    BigDecimal discountRate;

    int discountDays;

    @Nullable
    String holdReason;

    boolean oneTime;

    /** What it became, where it was merged into another. */
    @Nullable
    Long mergedIntoId;

    String email = "";

    @Nullable
    String taxNumberSealed;

    String taxNumberMask = "";

    @Enumerated(EnumType.STRING)
    Reportable reportable = Reportable.NO;

    @Version
    long version;

    VendorFacts facts() {
        return new VendorFacts(name, vendorGroup, priority, method, terms(), email, reportable);
    }

    Terms terms() {
        return new Terms(termsRule, termsDays, termsCutOffDay, discountRate, discountDays);
    }

    void take(VendorFacts facts) {
        name = facts.name();
        vendorGroup = facts.group();
        priority = facts.priority();
        method = facts.method();
        take(facts.terms());
        email = facts.email();
        reportable = facts.reportable();
    }

    void take(Terms terms) {
        termsRule = terms.rule();
        termsDays = terms.days();
        termsCutOffDay = terms.cutOffDay();
        discountRate = terms.discountRate().setScale(5);
        discountDays = terms.discountDays();
    }
}
