package leveltally.server.vendors;

import jakarta.persistence.*;
import java.math.BigDecimal;
import java.util.stream.Collectors;
import leveltally.core.DateStyle;
import leveltally.core.terms.Terms;
import leveltally.core.vendors.Advice;
import leveltally.core.vendors.Delivery;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.PaymentMethod;
import leveltally.core.vendors.Reportable;
import leveltally.core.vendors.VendorFacts;
import org.hibernate.annotations.DynamicUpdate;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
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

    /** The names of the other ways by which it may be paid, between commas. */
    @JdbcTypeCode(SqlTypes.CHAR)
    String alsoBy = "";

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

    @Enumerated(EnumType.STRING)
    Advice advice = Advice.PAPER;

    @Enumerated(EnumType.STRING)
    Delivery checkDelivery = Delivery.MAIL;

    @Enumerated(EnumType.STRING)
    @Nullable
    DateStyle dateStyle;

    @Nullable
    String taxNumberSealed;

    String taxNumberMask = "";

    @Enumerated(EnumType.STRING)
    Reportable reportable = Reportable.NO;

    @Version
    long version;

    VendorFacts facts() {
        return new VendorFacts(
                name, vendorGroup, priority, method, terms(), paperwork(), reportable, PaymentMethod.named(alsoBy));
    }

    private Paperwork paperwork() {
        return new Paperwork(advice, email, checkDelivery, dateStyle);
    }

    Terms terms() {
        return new Terms(termsRule, termsDays, termsCutOffDay, discountRate, discountDays);
    }

    void take(VendorFacts facts) {
        name = facts.name();
        vendorGroup = facts.group();
        priority = facts.priority();
        method = facts.method();
        alsoBy = facts.alsoBy().stream().sorted().map(Enum::name).collect(Collectors.joining(","));
        take(facts.terms());
        take(facts.paperwork());
        reportable = facts.reportable();
    }

    private void take(Paperwork paperwork) {
        advice = paperwork.advice();
        email = paperwork.email();
        checkDelivery = paperwork.checks();
        dateStyle = paperwork.dates();
    }

    void take(Terms terms) {
        termsRule = terms.rule();
        termsDays = terms.days();
        termsCutOffDay = terms.cutOffDay();
        discountRate = terms.discountRate().setScale(5);
        discountDays = terms.discountDays();
    }
}
