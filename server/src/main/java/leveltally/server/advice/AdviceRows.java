package leveltally.server.advice;

import java.util.List;
import leveltally.core.checks.CheckNumberId;
import leveltally.core.payments.PaymentId;
import leveltally.core.payments.PaymentState;
import leveltally.core.people.Actor;
import leveltally.core.people.Deed;
import leveltally.core.vendors.Advice;
import leveltally.server.mail.MailRows;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Reads how payees learn what a payment is for. */
@Component
class AdviceRows {
    private final JdbcClient jdbc;
    private final MailRows mails;

    AdviceRows(JdbcClient jdbc, MailRows mails) {
        this.jdbc = jdbc;
        this.mails = mails;
    }

    private record Found(PaymentId payment, Advice wish, String address, PaymentState state) {}

    /** The payment that a number carries. */
    @Transactional(readOnly = true)
    public PaymentId payment(CheckNumberId check) {
        return found(check).payment();
    }

    @Transactional(readOnly = true)
    public AdvisedView of(Actor by, CheckNumberId check) {
        Found found = found(check);
        boolean stands = found.state() == PaymentState.OUTSTANDING || found.state() == PaymentState.CLEARED;
        List<AdvisedView.AdviceMail> written = mails.ofPayment(found.payment()).stream()
                .map(one -> new AdvisedView.AdviceMail(
                        one.id(),
                        one.address(),
                        one.state(),
                        one.stateWords(),
                        one.madeAt(),
                        one.sentAt(),
                        one.trouble()))
                .toList();
        return new AdvisedView(
                found.wish().words(), found.address(), stands && Deed.MAIL_ADVICE.allowedTo(by.roles()), written);
    }

    private Found found(CheckNumberId check) {
        return jdbc.sql(
                        "SELECT p.id, p.advice, p.state, v.email FROM check_number n"
                                + " JOIN payment p ON p.id = n.payment_id JOIN vendor v ON v.id = p.vendor_id WHERE n.id = :check")
                .param("check", check.value())
                .query((r, n) -> new Found(
                        new PaymentId(r.getLong("id")),
                        Advice.valueOf(r.getString("advice")),
                        r.getString("email"),
                        PaymentState.valueOf(r.getString("state"))))
                .optional()
                .orElseThrow(Advices::notThere);
    }
}
