package leveltally.server.advice;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import leveltally.core.Refusal;
import leveltally.core.company.Company;
import leveltally.core.money.Money;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.Advice;
import leveltally.core.vendors.Delivery;
import leveltally.core.vendors.Paperwork;
import leveltally.core.vendors.PaymentMethod;
import leveltally.server.audit.AuditTrail;
import leveltally.server.company.Companies;
import leveltally.server.mail.Outbox;
import leveltally.server.mail.ToPayee;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Sends payees the list of what a payment is for: once it is posted, where they wish it, and again when asked. */
@Service
public class Advices {
    private final JdbcClient jdbc;
    private final Outbox outbox;
    private final Companies companies;
    private final AuditTrail audit;

    Advices(JdbcClient jdbc, Outbox outbox, Companies companies, AuditTrail audit) {
        this.jdbc = jdbc;
        this.outbox = outbox;
        this.companies = companies;
        this.audit = audit;
    }

    /** What a payment says to its payee, and where that goes. */
    private record Addressed(AdviceLetter letter, Advice wish, String address, PaymentState state, boolean sent) {}

    /** Puts the mail in line for those whose payees wish it; the statements do not grow with the payments. */
    @Transactional
    public void tell(Actor by, Collection<PaymentId> posted) {
        Company company = companies.company();
        List<ToPayee> mails = addressed(posted).stream()
                .filter(one -> one.wish().isMailed())
                .map(one -> one.letter().from(company, one.address(), false))
                .toList();
        if (!mails.isEmpty()) {
            outbox.put(mails, by.now());
        }
    }

    /**
     * Sends it again, or to somebody who never asked for it.
     *
     * @param address where to; the vendor's own is not changed
     */
    @Transactional
    public void again(Actor by, PaymentId payment, String address) {
        by.mayDo(Deed.MAIL_ADVICE);
        String to = address.strip();
        if (!Paperwork.isAddress(to)) {
            throw Refusal.invalidField("no-address", "address", "This is no mail address. Type one, without a name.");
        }
        Addressed one = addressed(List.of(payment)).stream().findFirst().orElseThrow(Advices::notThere);
        if (one.state() != PaymentState.OUTSTANDING && one.state() != PaymentState.CLEARED) {
            throw Refusal.conflict(
                    "not-a-payment", "This payment is " + one.state().words() + ", so there is nothing to advise of.");
        }
        outbox.put(List.of(one.letter().from(companies.company(), to, one.sent())), by.now());
        audit.record(
                by,
                "send advice",
                one.letter().called(),
                Map.of("payee", one.letter().payee(), "to", to, "sent before", one.sent()));
    }

    /**
     * Sends the list of several payments again, each to the address kept for its vendor.
     *
     * @return the payees who have none, or whose payment does not stand any more; the others are told
     */
    @Transactional
    public List<String> again(Actor by, Collection<PaymentId> payments) {
        by.mayDo(Deed.MAIL_ADVICE);
        Company company = companies.company();
        List<ToPayee> mails = new ArrayList<>();
        List<String> without = new ArrayList<>();
        for (Addressed one : addressed(payments)) {
            boolean stands = one.state() == PaymentState.OUTSTANDING || one.state() == PaymentState.CLEARED;
            if (!stands || !Paperwork.isAddress(one.address())) {
                without.add(one.letter().payee());
                continue;
            }
            mails.add(one.letter().from(company, one.address(), one.sent()));
            audit.record(
                    by,
                    "send advice",
                    one.letter().called(),
                    Map.of("payee", one.letter().payee(), "to", one.address(), "sent before", one.sent()));
        }
        if (!mails.isEmpty()) {
            outbox.put(mails, by.now());
        }
        return without;
    }

    static Refusal notThere() {
        return Refusal.notFound("no-payment", "There is no such payment, so there is no advice.");
    }

    private List<Addressed> addressed(Collection<PaymentId> payments) {
        return jdbc.sql("""
                        SELECT p.id, p.batch_id, k.method, k.check_id, k.series_id, COALESCE(n.number, k.number) AS number, p.payee,
                          p.amount_minor, p.currency, COALESCE(f.pays_on, p.check_date) AS paid_on, p.advice, p.state, v.email,
                          COALESCE(d.delivery, v.check_delivery) AS delivery,
                          (SELECT COUNT(*) FROM claim_line l WHERE l.claim_id = p.claim_id) AS entries,
                          EXISTS (SELECT 1 FROM mail m WHERE m.payment_id = p.id) AS sent
                        FROM payment p JOIN payment_carried k ON k.payment_id = p.id AND k.number <> ''
                        JOIN vendor v ON v.id = p.vendor_id
                        LEFT JOIN check_number n ON n.id = k.check_id
                        LEFT JOIN electronic_item i ON i.payment_id = p.id LEFT JOIN bank_file f ON f.id = i.file_id
                        LEFT JOIN claim_delivery d ON d.claim_id = p.claim_id
                        WHERE p.id IN (:payments) ORDER BY p.id
                        """)
                .param("payments", payments.stream().map(PaymentId::value).toList())
                .query((r, n) -> new Addressed(
                        new AdviceLetter(
                                new PaymentId(r.getLong("id")),
                                r.getObject("check_id") == null
                                        ? "/batches/" + r.getLong("batch_id")
                                        : "/register?series=" + r.getLong("series_id") + "&check="
                                                + r.getLong("check_id"),
                                PaymentMethod.valueOf(r.getString("method")),
                                r.getString("number"),
                                r.getString("payee"),
                                Money.ofMinor(r.getLong("amount_minor"), r.getString("currency")),
                                r.getObject("paid_on", LocalDate.class),
                                Delivery.valueOf(r.getString("delivery")),
                                r.getInt("entries")),
                        Advice.valueOf(r.getString("advice")),
                        r.getString("email"),
                        PaymentState.valueOf(r.getString("state")),
                        r.getBoolean("sent")))
                .list();
    }
}
